<script setup lang="ts">
import type { Editor } from '@tiptap/vue-3'
import LineInput from '~/components/controls/LineInput.vue'

/** What the chosen picture shows, in words: read to those who cannot see it. */
const props = defineProps<{ editor: Editor }>()
const words = computed(() => String(props.editor.getAttributes('image').alt ?? ''))
const describe = (event: Event) =>
  props.editor.commands.updateAttributes('image', { alt: (event.target as HTMLInputElement).value }) // its own event
</script>

<template>
  <label class="picture"
    >What the picture shows
    <LineInput
      class="in"
      :value="words"
      maxlength="300"
      placeholder="for those who cannot see it"
      @input="describe"
  /></label>
</template>

<style scoped>
.picture {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  padding: 6px 14px;
  font-size: 0.8125rem;
  border-bottom: 1px solid var(--line-soft);
}
.in {
  flex: 1;
  min-width: 12rem;
}
</style>
