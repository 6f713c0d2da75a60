<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import katex from 'katex'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'
import { vRoving } from '../controls/vRoving'
import { FORMULA_PARTS, withPart, type FormulaPart } from './formulaParts'

/** A formula in LaTeX, typed or put together from parts, drawn as it grows. */
const props = defineProps<{ isNew: boolean }>()
const latex = defineModel<string>({ required: true })
const emit = defineEmits<{ set: [] }>()
const drawn = computed(() =>
  katex.renderToString(latex.value || 'd = d_0 - 0.4\\,t', { output: 'mathml', throwOnError: false }),
)
const draw = (part: string) => katex.renderToString(part, { output: 'mathml', throwOnError: false })
const form = ref<HTMLFormElement | null>(null)
const field = () => form.value?.querySelector('input') ?? null
async function add(part: FormulaPart) {
  const input = field()
  const end = latex.value.length
  const next = withPart(latex.value, [input?.selectionStart ?? end, input?.selectionEnd ?? end], part)
  latex.value = next.latex
  await nextTick()
  input?.focus()
  input?.setSelectionRange(next.caret, next.caret)
}
const formulaVerb = computed(() => {
  if (props.isNew) return 'Insert'
  if (latex.value.trim()) return 'Save changes'
  return 'Remove'
})
</script>

<template>
  <form ref="form" class="formula" @submit.prevent="emit('set')">
    <label>LaTeX <LineInput v-model="latex" class="in" placeholder="d = d_0 - 0.4\,t" autofocus /></label>
    <!-- eslint-disable-next-line vue/no-v-html -- KaTeX escapes what it does not know -->
    <span class="drawn" v-html="drawn" />
    <TextButton type="submit">
      {{ formulaVerb }}
    </TextButton>
    <div v-roving class="parts" role="toolbar" aria-label="Parts of a formula">
      <PlainButton
        v-for="part in FORMULA_PARTS"
        :key="part.name"
        :title="part.name"
        :aria-label="part.name"
        @click="add(part)"
      >
        <!-- eslint-disable-next-line vue/no-v-html -- drawn from our own list -->
        <span aria-hidden="true" v-html="draw(part.drawn)" />
      </PlainButton>
    </div>
  </form>
</template>

<style scoped>
.formula {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  padding: 7px 14px;
  border-bottom: 1px solid var(--line-soft);
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 0.8125rem;
}
.in {
  width: 18rem;
  max-width: 60vw;
  font-family: ui-monospace, monospace;
}
.parts {
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
.parts button {
  min-width: 30px;
  height: 30px;
  padding: 0 6px;
  border: 1px solid var(--line-soft);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
.parts button:hover {
  background: var(--sunken);
}
.drawn {
  font-size: 1.125rem;
}
</style>
