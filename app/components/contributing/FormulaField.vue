<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import katex from 'katex'
import TextButton from '~/components/controls/TextButton.vue'

/** A formula in LaTeX, drawn as it is typed. */
const props = defineProps<{ isNew: boolean }>()
const latex = defineModel<string>({ required: true })
const emit = defineEmits<{ set: [] }>()
const drawn = computed(() =>
  katex.renderToString(latex.value || 'd = d_0 - 0.4\\,t', { output: 'mathml', throwOnError: false }),
)
const formulaVerb = computed(() => {
  if (props.isNew) return 'Insert'
  if (latex.value.trim()) return 'Save changes'
  return 'Remove'
})
</script>

<template>
  <form class="formula" @submit.prevent="emit('set')">
    <label>LaTeX <LineInput v-model="latex" class="in" placeholder="d = d_0 - 0.4\,t" autofocus /></label>
    <!-- eslint-disable-next-line vue/no-v-html -- KaTeX escapes what it does not know -->
    <span class="drawn" v-html="drawn" />
    <TextButton type="submit">
      {{ formulaVerb }}
    </TextButton>
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
.drawn {
  font-size: 1.125rem;
}
</style>
