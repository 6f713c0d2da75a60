<script setup lang="ts">
import type { Standing } from '#core/standing/standing'
import type { PlanNote } from '~/composables/planning/planNotes'
import FillMark from '../marking/FillMark.vue'

/** What is said of an activity on the plan, after its kind where there is room for the word. */
const props = defineProps<{
  note: PlanNote
  kind: string | null
  standing: Standing | null
  /** Where what is ready is marked. */
  desk: { readonly to: string; readonly name: string } | null
}>()
const lead = computed(() => {
  if (!props.kind) return ''
  return props.note.strong || props.note.rest ? `${props.kind} · ` : props.kind
})
</script>

<template>
  <span class="note"
    ><FillMark v-if="standing" :standing="standing" :named="false" />{{ lead
    }}<NuxtLink v-if="desk && note.strong" :to="desk.to" :aria-label="desk.name" draggable="false">{{
      note.strong
    }}</NuxtLink
    ><b v-else>{{ note.strong }}</b
    >{{ note.rest }}</span
  >
</template>

<style scoped>
.note {
  font: 500 0.75rem/1.2 var(--ui);
  color: var(--ink-2);
  white-space: nowrap;
}
b,
a {
  color: var(--ember);
  font-weight: 650;
}
a {
  line-height: 24px;
  text-decoration-color: transparent;
}
a:hover {
  text-decoration-color: currentcolor;
}
.fill {
  vertical-align: -2px;
  margin-inline-end: 6px;
}
</style>
