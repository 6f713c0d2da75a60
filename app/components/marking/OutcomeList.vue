<script setup lang="ts">
import { plural } from '#core/language'
import * as markingEndpoints from '#shared/marking/endpoints'
import type { OutcomeView } from '#shared/marking/rubric'
import TextButton from '~/components/controls/TextButton.vue'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import OutcomeForm from './OutcomeForm.vue'

/** The learning outcomes of a seminar: added, edited, retired and used again; every change has its undo. */
const props = defineProps<{ outcomes: readonly OutcomeView[]; mayManage: boolean; seminarId: string }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const notices = useNotices()
const { attempt } = useSending()
const changing = ref<string | 'new' | null>(null)
const showsRetired = ref(false)
const retired = computed(() => props.outcomes.filter(o => o.retired))
const shown = computed(() => (showsRetired.value ? props.outcomes : props.outcomes.filter(o => !o.retired)))
const linkedWords = (n: number) => (n > 0 ? `${n} ${plural(n, 'criterion', 'criteria')}` : 'no criterion')

type Words = Pick<OutcomeView, 'code' | 'statement' | 'retired'>
const store = (o: OutcomeView, words: Words) =>
  api.call(markingEndpoints.changeOutcome, {
    params: { seminarId: props.seminarId, outcomeId: o.id },
    body: { key: newKey(), baseVersion: o.version, ...words },
  })
/** Says what has changed, with the way back to what it was. */
function sayChanged(said: string, { code, statement, retired: wasRetired }: Words, after: OutcomeView) {
  emit('changed')
  notices.say(said, {
    label: 'Undo',
    run: async () => {
      await attempt(() => store(after, { code, statement, retired: wasRetired }))
      emit('changed')
    },
  })
}
async function setRetired(o: OutcomeView, isRetired: boolean) {
  const { code, statement } = o
  const after = await attempt(() => store(o, { code, statement, retired: isRetired }))
  if (!after) {
    emit('changed') // somebody else's words, then
    return
  }
  const said = isRetired
    ? `“${code}” is retired. It is offered for criteria no more; what was judged by it stays.`
    : `“${code}” can be chosen for criteria again.`
  sayChanged(said, o, after)
}
function stored(before: OutcomeView | null, after: OutcomeView) {
  changing.value = null
  if (before) {
    sayChanged(`“${after.code}” is changed wherever it stands.`, before, after)
    return
  }
  emit('changed')
  notices.say(`“${after.code}” is added. Criteria of rubrics can be linked to it.`)
}
</script>

<template>
  <p v-if="outcomes.length === 0" class="hint">
    None yet. Write one, or import your college's from CASE JSON, or a CSV with the columns code and
    statement; then criteria can be linked to them.
  </p>
  <ul v-else class="outcomes">
    <li v-for="o in shown" :key="o.id" :class="{ retired: o.retired }">
      <OutcomeForm
        v-if="changing === o.id"
        :outcome="o"
        :seminar-id="seminarId"
        @stored="stored(o, $event)"
        @close="changing = null"
      />
      <template v-else>
        <b class="code">{{ o.code }}</b>
        <span>{{ o.statement }}</span>
        <span class="foot">
          <span class="hint">{{
            o.retired ? `retired · ${linkedWords(o.criteria)}` : linkedWords(o.criteria)
          }}</span>
          <template v-if="mayManage">
            <TextButton :aria-label="`Edit ${o.code}`" @click="changing = o.id">Edit</TextButton>
            <TextButton v-if="o.retired" :aria-label="`Use again: ${o.code}`" @click="setRetired(o, false)">
              Use again
            </TextButton>
            <TextButton v-else :aria-label="`Retire ${o.code}`" @click="setRetired(o, true)"
              >Retire</TextButton
            >
          </template>
        </span>
      </template>
    </li>
  </ul>
  <OutcomeForm
    v-if="changing === 'new'"
    :outcome="null"
    :seminar-id="seminarId"
    @stored="stored(null, $event)"
    @close="changing = null"
  />
  <p class="acts">
    <TextButton v-if="mayManage && changing !== 'new'" @click="changing = 'new'">Write an outcome</TextButton>
    <TextButton v-if="retired.length > 0" :aria-expanded="showsRetired" @click="showsRetired = !showsRetired">
      {{ showsRetired ? 'hide what is retired' : `show what is retired (${retired.length})` }}
    </TextButton>
  </p>
</template>

<style scoped>
.outcomes {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: fit-content(9rem) minmax(0, 1fr);
  gap: 2px 14px;
  padding: 9px 0;
  border-top: 1px solid var(--line);
}
li.retired {
  color: var(--ink-2);
}
.code {
  font-weight: 600;
  min-width: 4.5rem;
  overflow-wrap: anywhere;
}
.foot {
  grid-column: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
li > :deep(form) {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  padding: 8px 0;
}
</style>
