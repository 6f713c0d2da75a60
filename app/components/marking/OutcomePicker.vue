<script setup lang="ts">
import CardMenu from '~/components/controls/CardMenu.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import { inWords } from '#core/language'
import { MOST_OUTCOMES } from '#core/marking/rubric/rubricDraft'
import type { OfferedOutcome } from '~/composables/marking/offeredOutcome'

/** Of which learning outcomes a criterion is evidence. One that is retired is offered only where it is linked already. */
const props = defineProps<{
  outcomes: readonly OfferedOutcome[]
  chosen: readonly string[] // identifiers
  criterion: string
  readonly: boolean
}>()
const emit = defineEmits<{ choose: [identifiers: string[]] }>()
const open = ref(false)
const isChosen = (o: OfferedOutcome) => props.chosen.includes(o.identifier)
const offered = computed(() => props.outcomes.filter(o => !o.retired || isChosen(o)))
const linked = computed(() => offered.value.filter(isChosen))
const shortName = (o: OfferedOutcome) => o.code || o.statement
const label = computed(() => {
  const [first] = linked.value
  if (!first) return 'no outcome'
  if (linked.value.length === 1) return shortName(first)
  const codes = linked.value.map(o => o.code)
  return codes.every(code => code !== '') && codes.length <= SPELLED
    ? codes.join(', ')
    : `${inWords(linked.value.length)} outcomes`
})
const SPELLED = 3
const isFull = computed(() => props.chosen.length >= MOST_OUTCOMES)
// in the order of the list, as they are stored
const toggle = (o: OfferedOutcome) =>
  emit(
    'choose',
    offered.value.filter(x => (x === o ? !isChosen(x) : isChosen(x))).map(x => x.identifier),
  )
</script>

<template>
  <p v-if="readonly">{{ label }}</p>
  <CardMenu v-else v-model="open" label="Learning outcomes" location="bottom start">
    <template #opener="{ opener }"
      ><PlainButton
        v-bind="opener"
        class="opener"
        aria-haspopup="dialog"
        :aria-label="`Learning outcomes of ${criterion}: ${label}`"
        >{{ label }}</PlainButton
      ></template
    >
    <fieldset class="list">
      <legend>“{{ criterion }}” is evidence of</legend>
      <label v-for="o in offered" :key="o.identifier" dir="auto">
        <PlainCheckbox :checked="isChosen(o)" :disabled="isFull && !isChosen(o)" @change="toggle(o)" />
        <span
          ><b v-if="o.code">{{ o.code }}</b> {{ o.statement }} <em v-if="o.retired">Retired.</em></span
        >
      </label>
      <p v-if="isFull" class="hint">
        A criterion is evidence of up to {{ inWords(MOST_OUTCOMES) }} outcomes.
      </p>
    </fieldset>
  </CardMenu>
</template>

<style scoped>
.opener {
  border: 0;
  padding: 0;
  background: none;
  font: inherit;
  max-width: 11rem;
  min-height: 24px;
  color: var(--ink-2);
  text-align: start;
  overflow-wrap: anywhere;
  text-decoration: underline;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
  cursor: pointer;
}
.list {
  width: min(420px, 92vw);
  max-height: 60vh;
  overflow: auto;
  margin: 0;
  padding: 12px 14px;
  border: 0;
  display: grid;
  gap: 2px;
}
legend {
  float: left;
  padding: 0 0 6px;
  color: var(--ink-2);
  font-size: 0.8125rem;
  overflow-wrap: anywhere;
}
label {
  clear: both;
  display: flex;
  align-items: baseline;
  gap: 9px;
  padding: 5px 4px;
  border-radius: 3px;
  cursor: pointer;
}
label:hover {
  background: var(--sheet-2);
}
label span {
  min-width: 0;
  overflow-wrap: anywhere;
}
</style>
