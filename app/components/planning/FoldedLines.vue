<script setup lang="ts">
import { inWords } from '#core/language'
import type { PlanLine } from '~/composables/planning/planLines'
import TextButton from '~/components/controls/TextButton.vue'

/** A heading, how many things stand under it, and the first of them in one line; the others on demand. */
const props = defineProps<{
  title: string
  note: string
  lines: readonly PlanLine[]
  /** Said where there is nothing. */
  calm: string
  busy?: boolean
}>()
const open = ref(false)
const id = useId()
const shown = computed(() => (open.value ? props.lines : props.lines.slice(0, 1)))
</script>

<template>
  <section :class="{ open }" :aria-labelledby="`${id}h`">
    <h2 :id="`${id}h`">
      {{ title }} <span :class="open ? 'note' : 'visually-hidden'">{{ note }}</span>
    </h2>
    <b class="count num">{{ lines.length > 0 ? lines.length : '' }}</b>
    <ul v-if="lines.length > 0" :id="`${id}l`">
      <li v-for="line in shown" :key="line.key" class="say">
        <p>
          <template v-for="(word, i) in line.words" :key="i"
            ><template v-if="typeof word === 'string'">{{ word }}</template
            ><b v-else-if="'strong' in word">{{ word.strong }}</b
            ><i v-else dir="auto">{{ word.title }}</i></template
          >
        </p>
        <NuxtLink v-if="line.act?.to" class="act" :to="line.act.to" :aria-label="line.act.name">{{
          line.act.label
        }}</NuxtLink>
        <TextButton
          v-else-if="line.act"
          class="act"
          :disabled="busy"
          :aria-label="line.act.name"
          @click="line.act.run?.()"
        >
          {{ line.act.label }}
        </TextButton>
      </li>
    </ul>
    <p v-else class="calm">{{ calm }}</p>
    <TextButton
      v-if="lines.length > 1"
      class="more"
      :aria-expanded="open"
      :aria-controls="`${id}l`"
      @click="open = !open"
    >
      {{ open ? 'show only one' : `show all ${inWords(lines.length)}`
      }}<span class="visually-hidden"> under {{ title }}</span>
    </TextButton>
  </section>
</template>

<style scoped>
section {
  flex: none;
  position: relative;
  display: grid;
  grid-template-columns: 6.25rem 1.25rem minmax(0, 1fr) auto;
  align-items: baseline;
  gap: 0 10px;
  min-height: 38px;
  padding: 8px 20px;
  background: var(--sheet);
  border-top: 1px solid var(--line);
}
.open {
  max-height: 42dvh;
  overflow: auto;
}
/* both lists open: the plan keeps a third */
.open:has(~ .open),
.open ~ .open {
  max-height: 24dvh;
}
h2 {
  font: 600 0.9375rem/1.3 var(--read);
}
.note {
  display: block;
  font: 500 0.75rem/1.3 var(--ui);
  color: var(--ink-3);
}
.count {
  font: 650 0.8125rem/1.3 var(--ui);
  color: var(--ember);
}
ul {
  list-style: none;
}
.say {
  display: flex;
  gap: 14px;
  align-items: baseline;
  justify-content: space-between;
  font: 400 0.875rem/1.4 var(--read);
}
.say + .say {
  border-top: 1px solid var(--line-soft);
}
.open .say {
  padding: 4px 0;
}
.open .say:first-child {
  padding-top: 0;
}
.say p {
  min-width: 0;
}
section:not(.open) .say p {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.act,
.more {
  font: 600 0.8125rem/1.3 var(--ui);
  white-space: nowrap;
}
.calm {
  font: 400 0.875rem/1.4 var(--read);
  color: var(--ink-2);
}
@media (max-width: 760px) {
  section {
    grid-template-columns: auto 1fr auto;
  }
  ul,
  .calm {
    grid-column: 1 / -1;
    grid-row: 2;
    margin-top: 6px;
  }
  .open,
  .open:has(~ .open),
  .open ~ .open {
    max-height: none;
  }
  .more {
    justify-self: end;
  }
  section:not(.open) .say p {
    white-space: normal;
  }
}
@media print {
  .more,
  .act {
    display: none;
  }
}
</style>
