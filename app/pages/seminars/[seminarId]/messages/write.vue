<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import { ownedStorage } from '~/autosave/ownedStorage'
import { sendKey } from '~/autosave/sendKey'
import { fill } from '#core/messaging/draft'
import { inWords, plural } from '#core/language'
import PersonDisc from '~/components/people/PersonDisc.vue'
import PlaceholderWords from '~/components/messaging/PlaceholderWords.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { readDrafts } from '~/composables/messaging/readDrafts'
import { useKeptMessage } from '~/composables/messaging/useKeptMessage'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import ChipButton from '~/components/controls/ChipButton.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Write to students' })
const route = useRoute()
const params = { seminarId: String(route.params.seminarId) }
const router = useRouter()
const api = useApi()
const notices = useNotices()
const { busy, problem, problems, send, attempt } = useSending()
const asked = (name: string) => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '')
const to = computed(() => asked('to').split(',').filter(Boolean))
const activityId = computed(() => asked('activity') || null)
const { data, error, refresh } = await useAsyncData(
  `write-${route.params.seminarId}`,
  () => readDrafts(api, params.seminarId, to.value, activityId.value),
  { watch: [to, activityId] },
)

const draftKey = computed(
  () => `jovrel:write:${route.params.seminarId}:${activityId.value ?? ''}:${[...to.value].sort().join(',')}`,
)
const { subject, text, own, left, begin } = useKeptMessage(
  () => draftKey.value,
  () => ({ subject: data.value?.subject ?? '', text: data.value?.text ?? '' }),
)
const isChanged = computed(
  () =>
    subject.value !== data.value?.subject ||
    text.value !== data.value?.text ||
    Object.keys(own.value).length > 0 ||
    left.value.length > 0,
)

const people = computed(() => (data.value?.people ?? []).filter(p => !left.value.includes(p.id)))
const at = ref(0)
const person = computed(() => people.value[Math.min(at.value, people.value.length - 1)] ?? null)
const shown = computed(() =>
  person.value ? fill(own.value[person.value.id] ?? text.value, person.value) : '',
)
const turn = (by: number) => {
  at.value = (Math.min(at.value, people.value.length - 1) + by + people.value.length) % people.value.length
}
const alone = computed(() => person.value !== null && own.value[person.value.id] !== undefined)
function changeAlone() {
  own.value = { ...own.value, [person.value!.id]: shown.value }
}
function likeOthers() {
  const { [person.value!.id]: _, ...rest } = own.value
  own.value = rest
}
const leaveOut = (id: string) => {
  left.value = [...left.value, id]
}
const personal = computed(
  () => people.value.length === 1 || people.value.some(p => own.value[p.id] !== undefined),
)
const area = useTemplateRef('area')
// where one writes, so that keys send it at once
onMounted(() => area.value?.focus())
function insert(placeholder: string) {
  const el = area.value?.element
  const [from, until] = [el?.selectionStart ?? text.value.length, el?.selectionEnd ?? text.value.length]
  text.value = text.value.slice(0, from) + placeholder + text.value.slice(until)
  void nextTick(() => {
    el?.focus()
    el?.setSelectionRange(from + placeholder.length, from + placeholder.length)
  })
}

const sendingKey = sendKey(() => draftKey.value)
async function go() {
  if (people.value.length === 0) return
  const n = people.value.length
  const body = {
    activityId: activityId.value,
    subject: subject.value,
    text: text.value,
    people: people.value.map(p => ({ id: p.id, text: own.value[p.id] ?? null })),
  }
  const sent = await send(() =>
    api.call(messagingEndpoints.sendMessages, {
      params,
      body: { key: sendingKey.for(body), ...body },
    }),
  )
  if (!sent) return
  sendingKey.done()
  const kept = ownedStorage.read(draftKey.value)
  ownedStorage.drop(draftKey.value)
  const address = route.fullPath
  await router.replace(`/seminars/${route.params.seminarId}/messages`)
  notices.say(
    `${n === 1 ? 'Your message goes' : `${inWords(n)} messages go`} out within a minute.`.replace(/^./, c =>
      c.toUpperCase(),
    ),
    {
      label: 'Undo',
      run: async () => {
        if (
          await attempt(() =>
            api.call(messagingEndpoints.takeMessagesBack, {
              params: { seminarId: String(route.params.seminarId), sendingId: sent.sendingId },
            }),
          )
        ) {
          if (kept) ownedStorage.put(draftKey.value, kept)
          await router.push(address)
        }
      },
    },
  )
}
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="write" @keydown.ctrl.enter.prevent="go" @keydown.meta.enter.prevent="go">
    <header>
      <h1>
        Write to
        {{
          people.length === 1
            ? people[0]!.fullName
            : `${inWords(people.length)} ${plural(people.length, 'student')}, one by one`
        }}
      </h1>
      <p v-if="data.about" class="muted">
        about
        <NuxtLink :to="`/seminars/${route.params.seminarId}/activities/${data.about.id}`">{{
          data.about.title
        }}</NuxtLink>
      </p>
    </header>
    <p v-if="data.people.length === 0" class="invite">
      None of those chosen is in the seminar any more. Choose students in Voices or Presence.
    </p>
    <div v-else class="two">
      <form @submit.prevent="go">
        <ul class="to" aria-label="To">
          <li
            v-for="p in people"
            :key="p.id"
            :class="{ on: p.id === person?.id, own: own[p.id] !== undefined }"
          >
            <PlainButton :aria-pressed="p.id === person?.id" @click="at = people.indexOf(p)">
              {{ p.fullName
              }}<span v-if="own[p.id] !== undefined" class="visually-hidden"
                >, with words of their own</span
              ></PlainButton
            ><PlainButton
              v-if="people.length > 1"
              class="off"
              :aria-label="`Remove ${p.fullName}`"
              @click="leaveOut(p.id)"
            >
              ×
            </PlainButton>
          </li>
        </ul>
        <label class="lab"
          >What it is about<LineInput
            v-model="subject"
            class="in"
            maxlength="160"
            :aria-invalid="Boolean(problems.subject)"
        /></label>
        <p v-if="problems.subject" class="field-problem">{{ problems.subject }}</p>
        <label class="lab"
          >{{ people.length === 1 ? 'Your words' : 'Your words to all of them'
          }}<LinesInput
            ref="area"
            v-model="text"
            class="in"
            rows="13"
            :aria-invalid="Boolean(problems.text)"
          />
        </label>
        <p v-if="problems.text" class="field-problem">{{ problems.text }}</p>
        <p class="placeholders small">
          <span class="muted">Insert:</span>{{ ' '
          }}<ChipButton
            v-for="placeholder in data.about
              ? ['{name}', '{missing}', '{activity}', '{due}']
              : ['{name}', '{missing}']"
            :key="placeholder"
            @click="insert(placeholder)"
          >
            {{
              {
                '{name}': 'the name',
                '{missing}': 'what is missing',
                '{activity}': 'the activity',
                '{due}': 'when it is due',
              }[placeholder]
            }}
          </ChipButton>
        </p>
        <p class="acts">
          <v-btn class="main" type="submit" :disabled="busy || people.length === 0 || text.trim() === ''"
            >Send {{ people.length === 1 ? 'it' : `${people.length} messages` }} <kbd>Ctrl Enter</kbd></v-btn
          >
          <TextButton v-if="isChanged" class="small" @click="begin"> back to the first draft </TextButton>
          <span v-if="problem && Object.keys(problems).length === 0" class="field-problem" role="alert">{{
            problem
          }}</span>
        </p>
        <p class="hint">
          It goes out as a notice and, for those who want it, as mail; within a minute it can be stopped.
          {{
            personal
              ? 'Written to one alone, it counts as contact with them.'
              : 'The same words to several count as contact with nobody: change them for one to make it personal.'
          }}
        </p>
      </form>
      <section v-if="person" class="sheet" aria-label="As it arrives">
        <div class="who">
          <PersonDisc
            :initials="
              person.fullName
                .split(' ')
                .map(w => w[0])
                .join('')
                .slice(0, 2)
            "
          />
          <div>
            <b>{{ person.fullName }}</b>
            <p class="muted small">
              {{ person.missing ? `missing: ${person.missing}` : 'nothing is missing' }}
            </p>
          </div>
          <span class="grow" /><template v-if="people.length > 1"
            ><v-btn class="quiet" aria-label="The student before" @click="turn(-1)">‹</v-btn
            ><span class="num small">{{ Math.min(at, people.length - 1) + 1 }} of {{ people.length }}</span
            ><v-btn class="quiet" aria-label="The next student" @click="turn(1)">›</v-btn></template
          >
        </div>
        <p class="subject">{{ fill(subject, person) }}</p>
        <label v-if="alone && people.length > 1"
          ><span class="visually-hidden">Your words to {{ person.fullName }} alone</span
          ><LinesInput v-model="own[person.id]" class="in" rows="13" />
        </label>
        <PlaceholderWords v-else :template="text" :particulars="person" />
        <p v-if="people.length > 1" class="small">
          <TextButton v-if="!alone" @click="changeAlone">
            Write to {{ person.name }} in other words</TextButton
          ><TextButton v-else @click="likeOthers"> Use the same words as for the others </TextButton>
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.write {
  flex: 1;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
header {
  padding: 12px 20px 10px;
  border-bottom: 1px solid var(--line);
  display: flex;
  gap: 4px 14px;
  align-items: baseline;
  flex-wrap: wrap;
}
h1 {
  font: 600 1.1875rem/1.3 var(--read);
}
.two {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
form {
  padding: 16px 24px 28px 20px;
  display: grid;
  gap: 12px;
  align-content: start;
  border-right: 1px solid var(--line);
}
form textarea {
  font: 400 0.9375rem/1.55 var(--read);
}
.to {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  max-height: 118px;
  overflow: auto;
}
.to li {
  display: flex;
  align-items: center;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--sheet);
  font-size: 0.8125rem;
}
.to .on {
  border-color: var(--harbour);
  background: var(--harbour-soft);
}
.to .own button:first-child {
  font-weight: 650;
}
.to button {
  background: none;
  border: 0;
  padding: 4px 11px;
  cursor: pointer;
  font: inherit;
  color: inherit;
  border-radius: 999px;
}
.to .off {
  padding: 4px 9px 4px 0;
  color: var(--ink-3);
}
.to .off:hover {
  color: var(--brick);
}
.placeholders {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.acts {
  display: flex;
  gap: 16px;
  align-items: center;
  flex-wrap: wrap;
}
.sheet {
  padding: 16px 24px 28px;
  background: var(--sheet);
  display: grid;
  gap: 10px;
  align-content: start;
}
.who {
  display: flex;
  gap: 10px;
  align-items: center;
  border-bottom: 1px solid var(--line-soft);
  padding-bottom: 10px;
}
.subject {
  font: 600 1.0625rem/1.35 var(--read);
}
.sheet textarea {
  width: 100%;
  font: 400 0.9375rem/1.55 var(--read);
}
@media (max-width: 820px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  form {
    border-right: 0;
    border-bottom: 1px solid var(--line);
    padding: 14px;
  }
  .sheet {
    padding: 14px;
  }
  header {
    padding: 10px 14px;
  }
}
</style>
