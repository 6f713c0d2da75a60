<script setup lang="ts">
import type { MyWeek } from '#shared/planning/myWeek'
import { useSeminarStore } from '~/stores/seminar'
import TermSoFar from './TermSoFar.vue'

/** A student's page: what it is about, said in a sentence, and the term so far beside it. */
defineProps<{ title: string; sentence: string; week: MyWeek }>()
const seminar = useSeminarStore()
</script>

<template>
  <div class="spread">
    <main>
      <div class="hello">
        <h1>{{ title }}</h1>
        <p>{{ sentence }}</p>
      </div>
      <slot />
    </main>
    <TermSoFar :week="week" :current="seminar.shell?.week ?? 0" :weeks="seminar.shell?.weeks.length ?? 0" />
  </div>
</template>

<style scoped>
.spread {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 404px;
}
main {
  overflow-y: auto;
  padding: 16px 28px 24px 20px;
}
.hello {
  display: flex;
  align-items: baseline;
  gap: 4px 14px;
  flex-wrap: wrap;
  margin-bottom: 10px;
}
h1 {
  font: 600 1.4375rem/1.2 var(--read);
}
.hello p {
  font: 400 0.9375rem/1.4 var(--read);
  color: var(--ink-2);
}
@media (max-width: 1000px) {
  .spread {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 620px) {
  main {
    padding: 14px;
  }
}
</style>
