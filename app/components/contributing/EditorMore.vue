<script setup lang="ts">
import type { Editor } from '@tiptap/vue-3'
import CardMenu from '~/components/controls/CardMenu.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

/** What a text can hold beyond what is used in every line: headings, numbers, raised and lowered letters, a table. */
const props = defineProps<{ editor: Editor | undefined; levels: readonly number[] }>()
type Form = Readonly<{ name: string; on: boolean; run: (chain: ReturnType<Editor['chain']>) => unknown }>
const forms = computed((): Form[] => {
  const isOn = (name: string, attrs?: object) => props.editor?.isActive(name, attrs) ?? false
  const all: Form[] = [
    ...props.levels.map((level, i): Form => ({
      name: i === 0 ? 'Heading' : 'Smaller heading',
      on: isOn('heading', { level }),
      run: chain => chain.toggleHeading({ level: level as 3 | 4 }).run(), // the levels an editor is opened with
    })),
    { name: 'Numbered list', on: isOn('orderedList'), run: chain => chain.toggleOrderedList().run() },
    { name: 'Raised x²', on: isOn('superscript'), run: chain => chain.toggleSuperscript().run() },
    { name: 'Lowered x₂', on: isOn('subscript'), run: chain => chain.toggleSubscript().run() },
    { name: 'Struck through', on: isOn('strike'), run: chain => chain.toggleStrike().run() },
    {
      name: 'Table',
      on: isOn('table'),
      run: chain => chain.insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run(),
    },
  ]
  return all.filter(form => form.name !== 'Table' || !form.on)
})
/** The keyboard goes back to the text once the card has let it go. */
async function choose(form: Form, close: () => void) {
  close()
  await nextTick()
  const chain = props.editor?.chain().focus()
  if (chain) form.run(chain)
}
</script>

<template>
  <CardMenu label="More forms" location="bottom start">
    <template #opener="{ opener }"
      ><PlainButton v-bind="opener" :disabled="!editor">More …</PlainButton></template
    >
    <template #default="{ close }"
      ><ul class="forms">
        <li v-for="form in forms" :key="form.name">
          <PlainButton :class="{ on: form.on }" :aria-pressed="form.on" @click="choose(form, close)">
            {{ form.name }}
          </PlainButton>
        </li>
      </ul></template
    >
  </CardMenu>
</template>

<style scoped>
.forms {
  list-style: none;
  padding: 6px;
  min-width: 168px;
}
.forms button {
  width: 100%;
  border: 0;
  border-radius: 5px;
  background: none;
  color: var(--ink);
  padding: 6px 10px;
  text-align: start;
  cursor: pointer;
}
.forms button:hover {
  background: var(--sunken);
}
.forms .on {
  background: var(--harbour-soft);
  color: var(--harbour-deep);
}
</style>
