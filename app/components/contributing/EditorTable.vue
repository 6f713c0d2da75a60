<script setup lang="ts">
import type { Editor } from '@tiptap/vue-3'
import PlainButton from '~/components/controls/PlainButton.vue'

/** What is done with the table the caret is in. */
const props = defineProps<{ editor: Editor }>()
type Chain = ReturnType<Editor['chain']>
const ACTS: ReadonlyArray<readonly [string, (chain: Chain) => Chain]> = [
  ['Add a row', chain => chain.addRowAfter()],
  ['Add a column', chain => chain.addColumnAfter()],
  ['Remove the row', chain => chain.deleteRow()],
  ['Remove the column', chain => chain.deleteColumn()],
  ['Delete the table', chain => chain.deleteTable()],
]
const act = (change: (chain: Chain) => Chain) => change(props.editor.chain().focus()).run()
</script>

<template>
  <div role="group" aria-label="Table">
    <PlainButton v-for="[name, change] in ACTS" :key="name" @click="act(change)">{{ name }}</PlainButton>
  </div>
</template>
