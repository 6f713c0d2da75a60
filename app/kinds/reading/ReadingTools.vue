<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { useFind } from '~/kinds/reading/useFind'
import type { useMargin } from '~/kinds/reading/useMargin'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Beside the pages of a reading: what is set, when others' notes are shown, finding in the text, and tags. */
const props = defineProps<{
  find: ReturnType<typeof useFind>
  margin: ReturnType<typeof useMargin>
  setWords: string | null
  waitingWords: string | null
}>()
const { words, field } = props.find
const { tag, tags } = props.margin
const endIfEmpty = () => {
  if (words.value.trim() === '') props.find.end()
}
const toggle = (t: string) => {
  tag.value = tag.value === t ? null : t
}
</script>

<template>
  <div class="aside">
    <p v-if="setWords" class="say">{{ setWords }}</p>
    <p v-if="waitingWords" class="say">{{ waitingWords }}</p>
    <form class="find" role="search" @submit.prevent="find.find(1)">
      <LineInput
        ref="field"
        v-model="words"
        class="in"
        type="search"
        placeholder="search the text"
        aria-label="Search the text"
        @keydown.esc="find.end"
        @input="endIfEmpty"
      /><span v-if="find.said.value" class="hint num" role="status">{{ find.said.value }}</span>
    </form>
    <p v-if="tags.length > 0" class="tags">
      <PlainButton
        v-for="t in tags"
        :key="t"
        :class="{ on: tag === t }"
        :aria-pressed="tag === t"
        @click="toggle(t)"
      >
        {{ t }}
      </PlainButton>
    </p>
    <p class="key" aria-hidden="true">
      <span><i />one note</span><span><i class="many" />many</span><span><i class="own" />yours</span>
    </p>
  </div>
</template>

<style scoped>
.aside {
  padding-right: 12px;
  display: grid;
  gap: 8px;
  margin-top: auto;
}
.say {
  font: 400 0.8125rem/1.4 var(--read);
  color: var(--ink-2);
}
.find .in {
  width: 100%;
  padding: 3px 8px;
  font-size: 0.78125rem;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}
.tags button {
  background: none;
  border: 0;
  border-bottom: 1px solid var(--spine);
  border-radius: 0;
  min-width: 24px;
  padding: 4px 0 2px;
  font: italic 400 0.8125rem/1.35 var(--read);
  color: var(--ink-2);
  cursor: pointer;
}
.tags .on {
  color: var(--ink);
  border-bottom: 2px solid var(--harbour);
}
.key span {
  display: grid;
  grid-template-columns: 38px 1fr;
  align-items: center;
  font-size: 0.75rem;
  line-height: 20px;
  color: var(--ink-2);
}
.key i {
  display: block;
  height: 0;
  width: 28px;
  border-bottom: 1px solid var(--k-reading);
}
.key .many {
  border-bottom-width: 4px;
}
.key .own {
  border-bottom: 2px dashed var(--harbour);
}
@media (max-width: 1000px) {
  .key,
  .tags {
    display: none;
  }
}
</style>
