<script setup lang="ts">
import type { LetterView } from '#shared/marking/letter'
import { points } from '~/composables/marking/points'

defineProps<{ criteria: LetterView['criteria'] }>()
</script>

<template>
  <ul class="steps">
    <li v-for="c in criteria" :key="c.id">
      <b>{{ c.title }}</b><span class="num">{{
        c.levelTitle === ''
          ? 'no step yet'
          : `${c.levelTitle.toLowerCase()}, ${points(c.points)} of ${points(c.max)}`
      }}</span>
      <span class="bars" aria-hidden="true"
        ><i
          v-for="(level, i) in c.levels"
          :key="i"
          :class="{
            below: c.levelTitle !== '' && level < c.points,
            at:
              c.levelTitle !== '' &&
              (level === c.points || (level > c.points && (c.levels[i - 1] ?? -1) < c.points)),
          }"
      /></span>
    </li>
  </ul>
</template>

<style scoped>
.steps {
  list-style: none;
  display: grid;
  gap: 8px;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 3px 8px;
  font-size: 0.78125rem;
  line-height: 16px;
}
b {
  font-weight: 600;
}
li > span:not(.bars) {
  color: var(--ink-2);
}
.bars {
  grid-column: 1 / 3;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 3px;
}
i {
  height: 6px;
  border-radius: 2px;
  background: var(--line-soft);
  box-shadow: inset 0 0 0 1px var(--line);
}
.below {
  background: color-mix(in srgb, var(--harbour) 35%, var(--sheet));
  box-shadow: none;
}
.at {
  background: var(--harbour);
  box-shadow: none;
}
@media (forced-colors: active) {
  .bars {
    forced-color-adjust: none;
  }
}
</style>
