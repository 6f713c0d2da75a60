<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { ACTIVITY_KINDS, type ActivityKind } from '#core/kinds/kind'
import { weekOf } from '#core/planning/week'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import type { SeminarShell } from '#shared/people/seminar'
import { KIND_WORDS } from '~/kinds/words'
import TextButton from '~/components/controls/TextButton.vue'

/** Of which kind the activity is, in which unit and week, and its title. */
const props = defineProps<{
  body: ActivityBody
  view: ComposerView
  shell: SeminarShell
  disabled: boolean
  problem?: string
}>()
const emit = defineEmits<{ change: [part: Partial<ActivityBody>]; kind: [kind: ActivityKind] }>()
const otherKinds = computed(() => ACTIVITY_KINDS.filter(kind => kind !== props.body.kind))
const week = computed(() => {
  const number = weekOf(new Date(props.body.opensAt), {
    firstDay: props.shell.weeks[0]!.startsAt.slice(0, 10),
    weeks: props.shell.weeks.length,
    timeZone: props.shell.timeZone,
  })
  return props.shell.weeks[number - 1]?.label ?? number
})
const setUnit = (event: Event) =>
  emit('change', { unitId: (event.target as HTMLSelectElement).value || null }) // the select's own event
const setTitle = (event: Event) => emit('change', { title: (event.target as HTMLInputElement).value }) // the input's own event
</script>

<template>
  <p class="kinds">
    <span class="kind" :style="{ '--k': `var(--k-${body.kind})` }">{{
      KIND_WORDS[body.kind].name
    }}</span><template v-if="!disabled"
      ><span class="hint">or make it a</span
      ><TextButton v-for="k in otherKinds" :key="k" @click="emit('kind', k)">
        {{ KIND_WORDS[k].name }}
      </TextButton></template
    >
    <span class="grow" /><label class="hint"
      >in
      <PickList
        class="in bare"
        :value="body.unitId ?? ''"
        :disabled="disabled"
        aria-label="Unit"
        @change="setUnit"
      >
        <option value="">all term</option>
        <option v-for="(u, i) in view.units" :key="u.id" :value="u.id">
          Unit {{ i + 1 }} · {{ u.title }}
        </option>
      </PickList>
      · week {{ week }}</label
    >
  </p>
  <h1>
    <LineInput
      class="title"
      :value="body.title"
      :readonly="disabled"
      aria-label="Title"
      :aria-invalid="Boolean(problem)"
      @input="setTitle"
    />
  </h1>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 9px;
  align-items: baseline;
  font-size: 0.8125rem;
}
.kinds .link {
  color: var(--ink-2);
}
.kind {
  font: 600 0.78125rem/1 var(--ui);
  color: var(--k);
  border-left: 4px solid var(--k);
  padding: 2px 0 2px 7px;
}
.bare {
  border-color: transparent;
  background: transparent;
  padding: 1px 2px;
  font-size: 0.8125rem;
  max-width: 12rem;
}
.title {
  width: 100%;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: transparent;
  font: 600 1.5625rem/1.35 var(--read);
  letter-spacing: -0.015em;
  color: var(--ink);
  padding: 4px 0 6px;
  outline: none;
}
.title:focus {
  border-bottom-color: var(--ember);
  box-shadow: 0 1px 0 var(--ember);
  border-radius: 0;
}
.grow {
  flex: 1;
}
</style>
