<script setup lang="ts">
import { fill, type Particulars } from '#core/messaging/draft'

/** A message as one student gets it, with what was put in for them marked. */
const props = defineProps<{ template: string; particulars: Particulars }>()
const MARK = '\u0001'
// filled once with marks around what is put in, so that the words are exactly those that go out
const parts = computed(() => {
  const p = props.particulars
  const marked = (word: string) => (word === '' ? '' : `${MARK}${word}${MARK}`)
  return fill(props.template, {
    name: marked(p.name),
    missing: marked(p.missing),
    activity: marked(p.activity),
    due: marked(p.due),
  })
    .split(MARK)
    .map((text, i) => ({ text, put: i % 2 === 1 }))
})
</script>

<template>
  <p class="words">
    <template v-for="(p, i) in parts" :key="i"
      ><mark v-if="p.put">{{ p.text }}</mark
      ><template v-else>{{ p.text }}</template></template
    >
  </p>
</template>

<style scoped>
.words {
  font: 400 0.96875rem/1.6 var(--read);
  white-space: pre-line;
  overflow-wrap: anywhere;
}
mark {
  background: linear-gradient(transparent 62%, var(--cited) 62%);
  color: inherit;
}
</style>
