<script setup lang="ts">
import { plural } from '#core/language'
import type { WholeContribution } from '#shared/contributing/thread'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import TextButton from '~/components/controls/TextButton.vue'

/** What can be done with a post, and how many have nodded at it. */
const props = defineProps<{ post: WholeContribution; desk: TalkDesk; editing: boolean; mayFold: boolean }>()
const isShown = computed(() => props.post.state === 'shown')
const mayWrite = computed(() => props.desk.mayWrite && !props.post.withdrawn)
const isClosed = computed(() => props.desk.isClosedToWords(props.post.id))
const mayAnswer = computed(() => props.desk.mayAnswer(props.post))
const chosen = computed(() => {
  const passage = props.desk.chosen.value
  return passage?.contributionId === props.post.id ? passage : null
})
</script>

<template>
  <div class="side">
    <b v-if="post.nods > 0"
      >{{ post.nods }} {{ plural(post.nods, 'nod') }}<template v-if="post.nodded">, yours too</template></b
    >
    <template v-if="mayWrite">
      <TextButton v-if="!post.author.isMe && isShown" :aria-pressed="post.nodded" @click="desk.nod(post.id)">
        {{ post.nodded ? 'remove nod' : 'nod' }}
      </TextButton>
      <TextButton v-if="mayAnswer" @click="desk.reply(post.id)">reply</TextButton>
      <TextButton v-if="chosen && mayAnswer" class="take" @click="desk.takeUp(chosen)">
        quote the chosen words
      </TextButton>
      <TextButton v-if="post.changeUntil && !editing" @click="desk.edit(post.id)"> change </TextButton>
      <TextButton v-if="post.withdrawUntil || desk.isStaff" @click="desk.withdraw(post.id)">
        withdraw
      </TextButton>
      <TextButton
        v-if="desk.isStaff && post.parentId === null && isShown"
        @click="desk.keepOnTop(post.id, !post.onTop)"
      >
        {{ post.onTop ? 'do not keep on top' : 'keep on top' }}
      </TextButton>
      <TextButton
        v-if="desk.isStaff && post.parentId === null && isShown && !desk.isClosedToWords(null)"
        @click="desk.closeToWords(post.id, !isClosed)"
      >
        {{ isClosed ? 'open to new words' : 'close to new words' }}
      </TextButton>
    </template>
    <TextButton v-else-if="post.mayPutBack" @click="desk.putBack(post.id)"> restore </TextButton>
    <TextButton v-if="mayFold" @click="desk.foldThread(post.id, true)"> fold the thread </TextButton>
  </div>
</template>

<style scoped>
.side {
  position: relative;
  grid-area: 1 / 1;
  justify-self: end;
  margin: 5px -138px 0 0;
  width: 120px;
  font-size: 0.78125rem;
  line-height: 18px;
  color: var(--ink-2);
  display: flex;
  flex-wrap: wrap;
  gap: 8px 9px;
  align-content: start;
  opacity: 0.999;
}
.side b {
  width: 100%;
  font-weight: 600;
  color: var(--ink);
}
.side .take {
  width: 100%;
  text-align: left;
  font-weight: 650;
  color: var(--ember);
}
@media (max-width: 760px) {
  .side {
    grid-area: auto;
    justify-self: start;
    margin: 0;
    width: auto;
    padding: 8px 0 0 42px;
    gap: 8px 14px;
  }
  .side b,
  .side .take {
    width: auto;
  }
}
</style>
