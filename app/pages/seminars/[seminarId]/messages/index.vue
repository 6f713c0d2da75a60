<script setup lang="ts">
import { plural } from '#core/language'
import PersonDisc from '~/components/people/PersonDisc.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import MessageThreadPane from '~/components/messaging/MessageThreadPane.vue'
import VoicesTabs from '~/components/voices/VoicesTabs.vue'
import { useKeptWords } from '~/composables/messaging/useKeptWords'
import { useTimes } from '~/composables/planning/useTimes'
import { sendKey } from '~/autosave/sendKey'
import { useApi } from '~/composables/shell/useApi'
import { useOlderThreads } from '~/composables/messaging/useOlderThreads'
import { useRefreshWhileVisible } from '~/composables/shell/useRefreshWhileVisible'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Messages' })
const route = useRoute()
const router = useRouter()
const api = useApi()
const notices = useNotices()
const seminar = useSeminarStore()
const { busy, problem, send, attempt } = useSending()
const { date } = useTimes()
const FRESH = 20_000 // milliseconds after which an open page looks again
const seminarId = String(route.params.seminarId)
const student = computed(() => (typeof route.query.student === 'string' ? route.query.student : ''))
const chosen = computed(() => (typeof route.query.thread === 'string' ? route.query.thread : ''))
const listThreads = (before?: string) =>
  api.call(messagingEndpoints.readMessageThreads, {
    params: { seminarId },
    query: { student: student.value, before },
  })
const { data, error, refresh } = await useAsyncData(
  `messages-${route.params.seminarId}`,
  () => listThreads(),
  { watch: [student] },
)
const {
  data: thread,
  error: threadError,
  refresh: refreshThread,
} = await useAsyncData(
  `message-${route.params.seminarId}`,
  () =>
    chosen.value
      ? api.call(messagingEndpoints.readMessageThread, {
          params: { seminarId: seminarId, threadId: chosen.value },
        })
      : Promise.resolve(null),
  { watch: [chosen] },
)
const { threads, more, loadMore } = useOlderThreads(
  () => data.value,
  id => listThreads(id),
)
const showMore = () => attempt(loadMore)
const open = (id: string) => router.push({ query: { ...route.query, thread: id } })
// what was opened is seen now: the list says so, and the frame's count goes down
watch(
  () => thread.value?.id,
  id => {
    if (!data.value?.threads.some(t => t.id === id && t.fresh)) return
    data.value = {
      ...data.value,
      fresh: data.value.fresh - 1,
      threads: data.value.threads.map(t => (t.id === id ? { ...t, fresh: false } : t)),
    }
    void seminar.load(seminarId)
  },
)
useRefreshWhileVisible(() => {
  void refresh()
  if (chosen.value) void refreshThread()
}, FRESH)

const { words: answer, isKept } = useKeptWords(() => `message:${chosen.value}`)
const key = sendKey(() => `message:${chosen.value}`)
async function reply() {
  const threadId = chosen.value
  const text = answer.value
  const now = await send(() =>
    api.call(messagingEndpoints.replyToMessage, {
      params: { seminarId: seminarId, threadId },
      body: { key: key.for(text), text },
    }),
  )
  if (!now || threadId !== chosen.value) return
  key.done()
  thread.value = now
  if (answer.value === text) answer.value = ''
  await refresh() // it stands first in the list now
}
const takeBack = () =>
  attempt(async () => {
    const { takenBack } = await api.call(messagingEndpoints.takeMessagesBack, {
      params: { seminarId: seminarId, sendingId: thread.value!.sendingId! },
    })
    await router.replace({ query: { ...route.query, thread: undefined } })
    await refresh()
    notices.say(
      takenBack === 1 ? 'Not sent: nobody was told.' : `None of the ${takenBack} was sent: nobody was told.`,
    )
  })
const staff = computed(() => seminar.isStaff)
const closed = computed(() => seminar.shell?.archived ?? false)
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="messages" :class="{ reading: chosen }">
    <header>
      <VoicesTabs v-if="staff" />
      <h1 :class="{ 'visually-hidden': staff }">Messages</h1>
      <span class="grow" />
      <template v-if="staff">
        <TextButton v-if="student" class="small" @click="router.replace({ query: {} })">
          everyone’s
        </TextButton>
        <NuxtLink class="small" :to="`/seminars/${route.params.seminarId}/messages/rules`"
          >Standing rules</NuxtLink
        >
      </template>
    </header>
    <p v-if="threads.length === 0" class="invite">
      {{
        staff
          ? 'Nothing has been written yet. Choose students in Voices or Presence to write to them; what they answer comes back here.'
          : 'Nobody has written to you alone yet. When your instructor does, it lies here, and you can answer.'
      }}
    </p>
    <div v-else class="two">
      <nav class="list" aria-label="Messages">
        <ul>
          <li v-for="t in threads" :key="t.id" :class="{ on: t.id === chosen, fresh: t.fresh }">
            <a href="#" :aria-current="t.id === chosen ? 'true' : undefined" @click.prevent="open(t.id)">
              <PersonDisc v-if="staff" :initials="t.initials" />
              <span class="line"
                ><b>{{ staff ? t.student : t.startedBy }}</b
                ><time class="num">{{ date(t.lastAt) }}</time></span
              >
              <span class="subject"
                >{{ t.subject
                }}<template v-if="t.fresh"
                  ><span class="dot" aria-hidden="true" /><span class="visually-hidden">, new</span></template
                ></span
              >
              <span class="words">{{ t.lastIsMine ? 'you: ' : '' }}{{ t.lastWords }}</span>
              <span v-if="t.waits || t.byRule" class="state">{{
                t.waits ? 'goes out within a minute' : 'sent by a rule'
              }}</span>
            </a>
          </li>
        </ul>
        <TextButton v-if="more" class="more" @click="showMore">earlier ones</TextButton>
      </nav>
      <section v-if="chosen && threadError" class="thread" role="alert">
        <p class="invite">{{ threadError.message }}</p>
        <TextButton @click="refreshThread()">Try again</TextButton>
      </section>
      <MessageThreadPane
        v-else-if="chosen && thread"
        v-model="answer"
        :is-kept="isKept"
        :thread="thread"
        :staff="staff"
        :closed="closed"
        :busy="busy"
        :problem="problem"
        :base="`/seminars/${seminarId}`"
        @back="router.replace({ query: { ...route.query, thread: undefined } })"
        @take-back="takeBack"
        @reply="reply"
      />
      <p v-else class="choose muted">
        {{ threads.length }} {{ plural(threads.length, 'conversation') }}. Choose one to read it.
      </p>
    </div>
  </main>
</template>

<style scoped>
.messages {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
header {
  padding: 8px 20px 6px;
  border-bottom: 1px solid var(--line);
  display: flex;
  gap: 4px 18px;
  align-items: baseline;
  flex-wrap: wrap;
}
h1 {
  font: 600 1.1875rem/1.3 var(--read);
}
.invite {
  padding: 20px;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
}
.list {
  border-right: 1px solid var(--line);
  background: var(--sheet);
  overflow: auto;
}
ul {
  list-style: none;
}
.list a {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0 10px;
  padding: 9px 16px 9px 20px;
  border-bottom: 1px solid var(--line-soft);
  text-decoration: none;
  color: var(--ink);
}
.list a > * {
  grid-column: 2;
}
.list a > .disc {
  grid-column: 1;
  grid-row: 1 / span 3;
  margin-top: 2px;
}
.list a:hover {
  background: var(--paper);
}
.list .on a {
  background: var(--harbour-soft);
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
.line b {
  font-weight: 600;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.line time {
  font-size: 0.75rem;
  color: var(--ink-2);
  white-space: nowrap;
}
.subject {
  font-size: 0.8125rem;
  display: flex;
  gap: 7px;
  align-items: center;
}
.fresh .subject,
.fresh b {
  font-weight: 700;
}
.dot {
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: var(--ember);
  flex: none;
}
.words {
  font-size: 0.78125rem;
  color: var(--ink-2);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.state {
  font-size: 0.75rem;
  color: var(--ember);
}
.more {
  margin: 12px 20px;
}
.thread {
  overflow: auto;
  padding: 14px 28px 28px;
}
.choose {
  padding: 24px 28px;
}
@media (max-width: 820px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .list {
    border-right: 0;
  }
  .reading .list,
  .choose {
    display: none;
  }
  .thread {
    padding: 12px 14px 24px;
  }
}
</style>
