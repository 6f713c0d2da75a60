<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { ThreadOrder } from '#core/contributing/buildThread'
import { plural } from '#core/language'
import type { TalkFilter } from '~/composables/contributing/useTalkFilter'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** How much there is, finding in it, opening a thread, and the order; where a filter is on, its name and the way out of it. */
const props = defineProps<{
  filter: TalkFilter
  openings: number
  replies: number
  byQuestion: boolean
  mayOpen: boolean
  /** Whether the reader says if new words of students are taken. */
  mayClose: boolean
  /** No new words of students are taken. */
  closed: boolean
  groupTitle: string | undefined
}>()
const emit = defineEmits<{ open: []; close: [closed: boolean] }>()
const ORDERS: ReadonlyArray<readonly [ThreadOrder, string]> = [
  ['talk', 'In order of talk'],
  ['newest', 'Newest first'],
  ['answers', 'Most answers'],
  ['unanswered', 'Unanswered first'],
  ['onlyNew', 'Only new'],
]
const { order, onlyFrom, onlyGroup, words, found, theirs, search, endSearch } = props.filter
const openingsWords = computed(() =>
  props.byQuestion ? plural(props.openings, 'question') : `opening ${plural(props.openings, 'post')}`,
)
const onlyWords = computed(() =>
  onlyFrom.value === 'held' ? 'held for approval' : `only ${theirs.value[0]?.author.name ?? 'one person'}`,
)
const endIfEmpty = () => {
  if (words.value.trim() === '') endSearch()
}
</script>

<template>
  <div class="sort">
    <span
      ><b>{{ openings }}</b> {{ openingsWords }}, <b>{{ replies }}</b>
      {{ plural(replies, 'reply', 'replies') }}</span
    >
    <form class="find" role="search" @submit.prevent="search">
      <LineInput
        v-model="words"
        class="in"
        type="search"
        placeholder="search"
        aria-label="Search this discussion"
        @input="endIfEmpty"
        @keydown.esc="endSearch"
      />
    </form>
    <TextButton v-if="mayOpen" @click="emit('open')">
      {{ byQuestion ? 'ask a question' : 'open a thread' }}
    </TextButton>
    <span v-if="closed">closed to new words</span>
    <TextButton v-if="mayClose" @click="emit('close', !closed)">
      {{ closed ? 'open to new words' : 'close to new words' }}
    </TextButton>
    <span class="grow" />
    <template v-if="found"
      ><span role="status"
        ><b>{{ found.size }}</b> {{ plural(found.size, 'post holds', 'posts hold') }} “{{
          words.trim()
        }}”</span
      ><TextButton @click="endSearch">everything</TextButton></template
    >
    <template v-else-if="onlyFrom"
      ><span>{{ onlyWords }}</span
      ><TextButton @click="onlyFrom = null">everyone</TextButton></template
    >
    <template v-else-if="onlyGroup"
      ><span>only {{ groupTitle }}</span
      ><TextButton @click="onlyGroup = null">all of them</TextButton></template
    >
    <span v-else class="orders" role="group" aria-label="Order"
      ><PlainButton
        v-for="[value, label] in ORDERS"
        :key="value"
        :class="{ on: order === value }"
        :aria-pressed="order === value"
        @click="order = value"
      >
        {{ label }}
      </PlainButton></span
    >
  </div>
</template>

<style scoped>
.sort {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  min-height: 34px;
  padding: 4px 22px 4px 20px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  border-bottom: 1px solid var(--line-soft);
  position: sticky;
  top: 0;
  background: var(--sheet);
  z-index: 5;
}
.sort b {
  color: var(--ink);
}
.orders {
  display: flex;
  gap: 16px;
  flex-wrap: wrap;
}
.orders button {
  background: none;
  border: 0;
  padding: 5px 0;
  color: inherit;
  cursor: pointer;
}
.orders .on {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--harbour);
  border-radius: 0;
}
.find .in {
  padding: 2px 8px;
  font-size: 0.78125rem;
  width: 11rem;
}
@media (max-width: 760px) {
  .sort {
    padding: 6px 14px;
    position: static;
  }
}
</style>
