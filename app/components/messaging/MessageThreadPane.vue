<script setup lang="ts">
import LinesInput from '~/components/controls/LinesInput.vue'
import type { MessageThread } from '#shared/messaging/messages'
import { useTimes } from '~/composables/planning/useTimes'
import TextButton from '~/components/controls/TextButton.vue'

/** One conversation: what was written, and what one answers. */
defineProps<{
  thread: MessageThread
  staff: boolean
  closed: boolean
  busy: boolean
  problem: string | null
  base: string
  /** Whether this browser keeps what is typed. */
  isKept: boolean
}>()
const answer = defineModel<string>({ required: true })
const emit = defineEmits<{ back: []; takeBack: []; reply: [] }>()
const { dayTime } = useTimes()
</script>

<template>
  <section class="thread" :aria-label="`With ${thread.student}`">
    <div class="top">
      <TextButton class="back" @click="emit('back')">all messages</TextButton>
      <h2>{{ thread.subject }}</h2>
      <p class="muted small">
        <template v-if="staff"
          >with <NuxtLink :to="`${base}/voices/${thread.studentId}`">{{ thread.student }}</NuxtLink></template
        ><template v-if="thread.about"
          >{{ staff ? ', ' : '' }}about
          <NuxtLink :to="`${base}/activities/${thread.about.id}`">{{
            thread.about.title
          }}</NuxtLink></template
        ><template v-if="thread.byRule">; a standing rule began it</template>
      </p>
    </div>
    <p v-if="!thread.told" class="waits" role="status">
      {{ thread.student }} has not been told yet: it goes out within a minute.
      <TextButton v-if="thread.sendingId" @click="emit('takeBack')"> Do not send it </TextButton>
    </p>
    <ol>
      <li v-for="m in thread.messages" :key="m.id" :class="{ mine: m.isMe }">
        <p class="who">
          <b>{{ m.isMe ? 'you' : m.author }}</b><time class="num">{{ dayTime(m.at) }}</time>
        </p>
        <p class="text">{{ m.text }}</p>
      </li>
    </ol>
    <form v-if="!closed && thread.told" @submit.prevent="emit('reply')">
      <label
        ><span class="visually-hidden">Your answer</span
        ><LinesInput
          v-model="answer"
          class="in"
          rows="3"
          :placeholder="staff ? `Answer ${thread.student}` : 'Answer here; it goes to those who teach'"
          @keydown.ctrl.enter.prevent="emit('reply')"
          @keydown.meta.enter.prevent="emit('reply')"
        />
      </label>
      <p class="acts">
        <v-btn class="main" type="submit" :disabled="busy || answer.trim() === ''"
          >Send <kbd>Ctrl Enter</kbd></v-btn
        ><span v-if="problem" class="field-problem" role="alert">{{ problem }}</span
        ><span v-else-if="answer.trim() && isKept" class="muted small"
          >kept in this browser until it is sent</span
        >
      </p>
    </form>
  </section>
</template>

<style scoped>
.thread {
  overflow: auto;
  padding: 14px 28px 28px;
}
.thread > * {
  max-width: 44rem;
}
h2 {
  font: 600 1.1875rem/1.3 var(--read);
}
.waits {
  background: var(--ember-soft);
  border-radius: var(--r);
  padding: 8px 12px;
  margin-top: 10px;
  font-size: 0.84375rem;
}
ol {
  list-style: none;
  margin-top: 14px;
  display: grid;
  gap: 14px;
}
.who {
  display: flex;
  gap: 12px;
  align-items: baseline;
  font-size: 0.8125rem;
}
.who time {
  color: var(--ink-2);
  font-size: 0.75rem;
}
.text {
  font: 400 0.96875rem/1.55 var(--read);
  white-space: pre-line;
  overflow-wrap: anywhere;
  border-left: 2px solid var(--line);
  padding-left: 14px;
  margin-top: 3px;
}
.mine .text {
  border-color: var(--harbour);
}
form {
  margin-top: 20px;
}
form .in {
  width: 100%;
  font: 400 0.9375rem/1.5 var(--read);
}
.acts {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-top: 6px;
  flex-wrap: wrap;
}
.back {
  display: none;
  font-size: 0.8125rem;
  margin-bottom: 6px;
}
@media (max-width: 820px) {
  .back {
    display: inline-block;
  }
  .thread {
    padding: 12px 14px 24px;
  }
}
</style>
