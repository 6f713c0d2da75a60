<script setup lang="ts">
import type { Gradebook } from '#shared/marking/gradebook'

/** What the cells of a gradebook mean, and what counts. */
const props = defineProps<{ grading: Gradebook['grading']; settingsTo: string }>()
const heldSentence = computed(() =>
  props.grading.countHeld ? 'Figures count held marks, too.' : 'Figures count what is returned.',
)
const missingSentence = computed(() =>
  props.grading.missingIsZero
    ? 'What is missing at its close counts as zero.'
    : 'What is missing is left out.',
)
</script>

<template>
  <div class="about">
    <p>
      Choose a figure and it says where it comes from. Arrows go from cell to cell; <kbd>↵</kbd> or a digit
      changes a mark.
    </p>
    <dl>
      <dt class="cell held">17</dt>
      <dd>held, not seen by the student</dd>
      <dt class="cell held">17 <ins>→ 19</ins></dt>
      <dd>returned and counting; being changed</dd>
      <dt class="cell open">17</dt>
      <dd>on the desk, not held yet</dd>
      <dt class="cell work">&nbsp;</dt>
      <dd>work is in, not marked</dd>
      <dt class="cell missing">0</dt>
      <dd>missing since its close</dd>
      <dt class="cell dropped">9</dt>
      <dd>left out as one of the lowest</dd>
      <dt class="cell set">17</dt>
      <dd>set by hand</dd>
    </dl>
    <p class="hint">
      {{ heldSentence }} {{ missingSentence }} <NuxtLink :to="settingsTo">Change this</NuxtLink>
    </p>
  </div>
</template>

<style scoped>
.about {
  padding: 16px 20px;
  display: grid;
  gap: 12px;
  font-size: 0.8125rem;
  line-height: 1.5;
}
ins {
  text-decoration: none;
  color: var(--harbour);
}
dl {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 6px 12px;
  align-items: center;
  margin: 0;
}
dd {
  margin: 0;
  color: var(--ink-2);
}
.cell {
  text-align: right;
  padding: 2px 8px;
  background: var(--sheet);
  border: 1px solid var(--line-soft);
  font-weight: 500;
}
.held {
  box-shadow: inset 4px 0 0 -1px var(--harbour);
}
.open {
  color: var(--ink-3);
  font-style: italic;
}
.work {
  background: linear-gradient(to top, var(--ember-soft) 3px, var(--sheet) 3px);
}
.missing {
  color: var(--brick);
}
.dropped {
  color: var(--ink-3);
  text-decoration: line-through;
}
.set {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
</style>
