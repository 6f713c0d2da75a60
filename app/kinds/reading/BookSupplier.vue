<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import TextButton from '~/components/controls/TextButton.vue'
import type { SupplierView } from '#shared/kinds/reading/reading'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'

/** Pages of a book are taken from the supplier of books into the library. */
const props = defineProps<{ seminarId: string }>()
const emit = defineEmits<{ taken: [title: string]; failed: [] }>()
const api = useApi()
const { attempt } = useSending()
const supplier = shallowRef<SupplierView | null>(null)
const chosen = reactive({ bookId: '', from: 1, to: 1 })
onMounted(async () => {
  const asked = await attempt(() =>
    api.call(readingEndpoints.readSupplier, { params: { seminarId: props.seminarId } }),
  )
  if (!asked) return emit('failed')
  supplier.value = asked
  const [first] = asked.books
  if (first) Object.assign(chosen, { bookId: first.id, from: 1, to: Math.min(3, first.parts.length) })
})
const book = computed(() => supplier.value?.books.find(b => b.id === chosen.bookId) ?? null)
const chapters = computed(() =>
  (book.value?.parts ?? []).flatMap((p, i, list) =>
    p.heading
      ? [
          {
            title: p.heading,
            from: p.number,
            to: (list.findIndex((q, j) => j > i && q.heading) + 1 || list.length + 1) - 1,
          },
        ]
      : [],
  ),
)
const take = () =>
  attempt(async () => {
    const answer = await api.call(readingEndpoints.takeFromSupplier, {
      params: { seminarId: props.seminarId },
      body: {
        key: newKey(),
        id: newKey(),
        bookId: chosen.bookId,
        from: chosen.from,
        to: Math.max(chosen.from, chosen.to),
      },
    })
    emit('taken', answer.title)
  })
</script>

<template>
  <div v-if="supplier" class="ask supplier">
    <p v-if="supplier.books.length === 0">{{ supplier.supplier }} has no books at the moment.</p>
    <template v-else>
      <p>
        <b>{{ supplier.supplier }}</b>
      </p>
      <p>
        <PickList
          v-model="chosen.bookId"
          class="in"
          aria-label="Book"
          @change="Object.assign(chosen, { from: 1, to: 1 })"
        >
          <option v-for="b in supplier.books" :key="b.id" :value="b.id">{{ b.title }}, {{ b.author }}</option>
        </PickList>
      </p>
      <p v-if="book" class="hint">{{ book.summary }}</p>
      <p v-if="chapters.length > 0">
        Chapters:
        <TextButton
          v-for="c in chapters"
          :key="c.from"
          class="chapter"
          :aria-pressed="chosen.from === c.from && chosen.to === c.to"
          @click="Object.assign(chosen, { from: c.from, to: c.to })"
        >
          {{ c.title }}
        </TextButton>
      </p>
      <p>
        Pages
        <PickList v-model.number="chosen.from" class="in" aria-label="From page">
          <option v-for="p in book?.parts" :key="p.number" :value="p.number">{{ p.label }}</option>
        </PickList>
        to
        <PickList v-model.number="chosen.to" class="in" aria-label="To page">
          <option
            v-for="p in book?.parts.filter(x => x.number >= chosen.from)"
            :key="p.number"
            :value="p.number"
          >
            {{ p.label }}
          </option></PickList
        >{{ ' ' }}<v-btn class="main" @click="take">Import into the library</v-btn>
      </p>
    </template>
  </div>
</template>

<style scoped>
.chapter {
  margin-right: 12px;
}
.chapter[aria-pressed='true'] {
  font-weight: 650;
}
</style>
