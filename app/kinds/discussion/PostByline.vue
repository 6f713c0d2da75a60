<script setup lang="ts">
import type { WholeContribution } from '#shared/contributing/thread'
import { useTimes } from '~/composables/planning/useTimes'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import TextButton from '~/components/controls/TextButton.vue'

/** Who wrote a post, what it answers, and what became of it. */
const props = defineProps<{
  post: WholeContribution
  desk: TalkDesk
  opening: string
  parent: string | null
  /** Where the post stands by itself, what it answers is a link. */
  atTop: boolean
  /** Where answers no longer move to the right, what is answered is named. */
  flat: boolean
  unanswered: boolean
  history: boolean
}>()
const emit = defineEmits<{ history: [] }>()
const { time } = useTimes()
const name = computed(() => (props.post.author.isMe ? 'You' : props.post.author.name))
const alias = computed(() => {
  const { alias, author } = props.post
  if (!alias) return ''
  return author.isMe ? `, to classmates ${alias}` : `, hidden from classmates as ${alias}`
})
const withdrawn = computed(() =>
  props.post.author.isMe
    ? 'withdrawn, only you and staff see it'
    : 'withdrawn, only staff and its author see it',
)
</script>

<template>
  <p class="by">
    <b>{{ name }}</b>{{ alias }}
    <template v-if="post.author.isStaff">
      · <span class="role">{{ post.author.role }}</span></template
    >
    <template v-if="post.parentId === null">
      · {{ opening }}, {{ post.words }} words<template v-if="desk.isVeiled(post.id)">
        · the others’ answers appear once yours is in</template
      ><template v-else-if="unanswered"> · no answer yet</template></template
    >
    <template v-else-if="post.takesUp"> quotes {{ parent }}</template>
    <template v-else-if="atTop && parent">
      answers
      <TextButton @click="desk.goTo(post.parentId)">{{ parent }}</TextButton></template
    >
    <template v-else-if="flat && parent"> answers {{ parent }}</template>
    <template v-if="post.onTop"> · <span class="top">kept on top</span></template>
    <template v-if="post.parentId === null && desk.isClosedToWords(post.id)">
      · <span class="top">closed to new words</span></template
    >
    <template v-if="post.editedAt">
      · changed {{ time(post.editedAt)
      }}<template v-if="desk.isStaff">
        <TextButton :aria-expanded="history" @click="emit('history')">
          {{ history ? 'fold' : 'what it said' }}
        </TextButton></template
      ></template
    >
    <template v-if="post.withdrawn"> · {{ withdrawn }}</template>
  </p>
</template>

<style scoped>
.by {
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink-3);
  padding-top: 5px;
  margin-bottom: 2px;
}
.by b {
  font-weight: 650;
  color: var(--ink);
}
.role {
  font-weight: 650;
  color: var(--harbour);
}
.top {
  font-weight: 600;
  color: var(--ember);
}
</style>
