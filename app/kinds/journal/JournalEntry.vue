<script setup lang="ts">
import type { ThreadNode } from '#core/contributing/buildThread'
import type { TalkSettings } from '#core/contributing/talkSettings'
import type { ContributionView, WholeContribution } from '#shared/contributing/thread'
import EntryArticle from '~/components/contributing/EntryArticle.vue'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import TextButton from '~/components/controls/TextButton.vue'

/** An entry of a journal: with whether the class reads it, and the choice of it where there is one. */
const props = defineProps<{
  node: ThreadNode<ContributionView>
  desk: TalkDesk
  opening: TalkSettings['opening']
}>()
const emit = defineEmits<{ open: [entry: WholeContribution]; close: [entry: WholeContribution] }>()
const entry = computed(() => props.node.item as WholeContribution)
const mayChoose = computed(
  () => props.opening === 'author' && (entry.value.author.isMe || props.desk.isStaff),
)
</script>

<template>
  <EntryArticle :node="node" :desk="desk" verb="answer">
    <template #meta
      ><template v-if="opening === 'author' && entry.openToClass">
        · <b>open to the class</b></template
      ></template
    >
    <template v-if="mayChoose" #acts>
      <TextButton v-if="entry.openToClass" @click="emit('close', entry)"> close it to the class </TextButton>
      <TextButton v-else @click="emit('open', entry)">open it to the class …</TextButton>
    </template>
  </EntryArticle>
</template>
