<script setup lang="ts">
import type { OpenResult } from '#core/closing/results'
import TextButton from '~/components/controls/TextButton.vue'

/** Answers in words: which words stand in how many of them, and every answer. */
const props = defineProps<{ result: OpenResult }>()
const SHOWN = 6
const whole = ref(false)
const most = computed(() => Math.max(1, ...props.result.words.map(w => w.answers)))
</script>

<template>
  <div class="pair">
    <ul v-if="result.words.length > 0" class="words" aria-label="Words, by how many answers they stand in">
      <li
        v-for="w in result.words"
        :key="w.word"
        :style="{ '--tone': `${Math.round((w.answers / most) * 100)}%` }"
      >
        <span>{{ w.word }}</span><b class="num">{{ w.answers }}</b>
      </li>
    </ul>
    <div>
      <ul class="said">
        <li v-for="(a, n) in whole ? result.answers : result.answers.slice(0, SHOWN)" :key="n">{{ a }}</li>
      </ul>
      <TextButton v-if="result.answers.length > SHOWN" class="small" @click="whole = !whole">
        {{ whole ? 'fold' : `all ${result.answers.length} answers` }}
      </TextButton>
    </div>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 10px 40px;
  margin-top: 8px;
  align-items: start;
}
@media (max-width: 760px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
.words {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 5px 6px;
  align-content: start;
}
.words li {
  display: flex;
  gap: 7px;
  align-items: baseline;
  padding: 2px 9px;
  border-radius: 4px;
  background: color-mix(in srgb, var(--harbour-soft) var(--tone), var(--sunken));
  font-size: 0.84375rem;
}
.words b {
  font-size: 0.75rem;
  color: var(--ink-2);
  font-weight: 600;
}
.said {
  list-style: none;
}
.said li {
  font: 400 0.9375rem/1.5 var(--read);
  border-left: 2px solid var(--line);
  padding-left: 12px;
  margin-bottom: 8px;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
