<script setup lang="ts">
import { addressOf } from '#shared/http/endpoint'
import type { ClosingAnswers } from '#core/closing/questions'
import type { ClosingWrite } from '#shared/closing/closing'
import ClosingEditor from '~/components/closing/ClosingEditor.vue'
import ClosingForm from '~/components/closing/ClosingForm.vue'
import ClosingResults from '~/components/closing/ClosingResults.vue'
import KindTag from '~/components/planning/KindTag.vue'
import { ownedStorage } from '~/autosave/ownedStorage'
import { closingDraftKey } from '~/components/closing/closingDraftKey'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import * as closingEndpoints from '#shared/closing/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
const route = useRoute()
const api = useApi()
const seminar = useSeminarStore()
const notices = useNotices()
const { dayTime } = useTimes()
const { busy, problem, problems, send, attempt } = useSending()
const params = { activityId: String(route.params.activityId) }
const {
  data: view,
  error,
  refresh,
} = await useAsyncData(
  `closing-${route.params.activityId}`,
  () =>
    api.call(closingEndpoints.readClosingQuestions, {
      params: { activityId: String(route.params.activityId) },
      query: { round: route.query.round ? Number(route.query.round) : undefined },
    }),
  { watch: [() => route.query.round] },
)
useHead({
  title: () => (view.value ? `Closing questions: ${view.value.activity.title}` : 'Closing questions'),
})
const base = computed(() => `/seminars/${route.params.seminarId}/activities/${route.params.activityId}`)
const editing = ref(false)
const askingAgain = ref(false)
const confirming = ref(false)
/** Without names, what has closed with answers in it does not open again. */
const endsForGood = computed(
  () => view.value?.round?.named === false && (view.value.staff?.answered ?? 0) > 0,
)
const endVerb = computed(() => (endsForGood.value ? 'Close now …' : 'Close now'))
const trying = ref(false)
const isNew = computed(() => view.value?.state === 'none')
const mayEdit = computed(() => seminar.shell?.role === 'instructor' && !seminar.shell.archived)
const thanks = ref(false)

async function keep(write: ClosingWrite) {
  const baseVersion = askingAgain.value ? null : (view.value!.round?.version ?? null)
  const now = await send(() =>
    api.call(closingEndpoints.setClosingQuestions, {
      params: { activityId: String(route.params.activityId) },
      body: { ...write, baseVersion },
    }),
  )
  if (!now) return
  view.value = now
  editing.value = false
  askingAgain.value = false
  if (route.query.round) await navigateTo({ query: {} })
  const savedSentence = () => {
    if (now.state === 'planned')
      return `The questions open ${dayTime(now.round!.opensAt)}; students are told then.`
    if (now.state === 'open') return 'The questions are open; students are told within a minute.'
    return 'Kept.'
  }
  notices.say(savedSentence())
}
const asWrite = (was: NonNullable<typeof view.value>['round'] & {}): ClosingWrite => ({
  round: was.number,
  questions: was.questions,
  named: was.named,
  opensAt: was.opensAt,
  closesAt: was.closesAt,
})
const remove = () =>
  attempt(async () => {
    const was = view.value!.round!
    await api.call(closingEndpoints.removeClosingQuestions, {
      params: { activityId: String(route.params.activityId) },
    })
    await refresh()
    notices.say('The questions are deleted.', {
      label: 'Undo',
      run: async () => {
        await attempt(() =>
          api.call(closingEndpoints.setClosingQuestions, {
            params: { activityId: String(route.params.activityId) },
            body: { ...asWrite(was), baseVersion: null },
          }),
        )
        await refresh()
      },
    })
  })
/** Changes when the questions open or close; what is said comes with the way back, unless nothing leads back. */
const change = (
  part: Partial<ClosingWrite>,
  said: () => { readonly text: string; readonly isFinal?: boolean },
) =>
  attempt(async () => {
    const was = view.value!.round!
    const put = (write: ClosingWrite, baseVersion: number) =>
      api.call(closingEndpoints.setClosingQuestions, {
        params: { activityId: String(route.params.activityId) },
        body: { ...write, baseVersion },
      })
    view.value = await put({ ...asWrite(was), ...part }, was.version)
    confirming.value = false
    const { text, isFinal } = said()
    if (isFinal) return notices.say(text)
    notices.say(text, {
      label: 'Undo',
      run: async () => {
        await attempt(() => put(asWrite(was), view.value!.round!.version))
        await refresh()
      },
    })
  })
/** Opens planned questions at this moment instead of at their time. */
const openNow = () =>
  change({ opensAt: seminar.shell!.now }, () => ({
    text: 'The questions are open; students are told within a minute.',
  }))
function end() {
  const { opensAt, closesAt } = view.value!.round!
  const { now } = seminar.shell!
  const soonest = new Date(Math.max(Date.parse(now), Date.parse(opensAt) + 60_000)).toISOString()
  return change({ closesAt: now > opensAt ? soonest : closesAt }, () =>
    view.value!.staff?.isFinal
      ? { text: 'Closed for good. What came in can be read now.', isFinal: true }
      : { text: 'Closed.' },
  )
}
async function answer(answers: ClosingAnswers) {
  const now = await send(() =>
    api.call(closingEndpoints.answerClosingQuestions, {
      params: { activityId: String(route.params.activityId) },
      body: { answers },
    }),
  )
  if (!now) return
  ownedStorage.drop(closingDraftKey(view.value!))
  view.value = now
  thanks.value = true
}
/** Whoever ends them for good is asked first: this is not taken back. */
function askOrEnd() {
  if (endsForGood.value && !confirming.value) confirming.value = true
  else void end()
}
function leaveEditor() {
  if (isNew.value) void navigateTo(base.value)
  editing.value = false
  askingAgain.value = false
}
/** A round by when it closed or closes: that is how staff remember it. */
const roundName = (r: { number: number; state: keyof typeof STATE; closesAt: string }) => {
  if (r.state === 'closed') return `Round ${r.number}, closed ${dayTime(r.closesAt)}`
  return r.state === 'open'
    ? `Round ${r.number}, open until ${dayTime(r.closesAt)}`
    : `Round ${r.number}, not open yet`
}
const STATE = { none: '', planned: 'opens', open: 'open until', closed: 'closed' } as const
</script>

<template>
  <ProblemPage v-if="error || !view" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf closing">
    <div class="leaf-head">
      <KindTag :kind="view.activity.kind" />
      <h1>
        Closing questions: <NuxtLink :to="base">{{ view.activity.title }}</NuxtLink>
      </h1>
      <span v-if="view.round && view.rounds.length < 2" class="muted small"
        >{{ STATE[view.state] }}
        {{ dayTime(view.state === 'planned' ? view.round.opensAt : view.round.closesAt) }}</span
      >
      <div v-if="view.staff && view.round && !editing && !askingAgain" class="acts">
        <a
          v-if="view.staff.results"
          :href="
            addressOf(closingEndpoints.downloadClosingAnswers, {
              params,
              query: { round: view.round.number },
            })
          "
          download
          >Export as a table</a
        >
        <TextButton @click="trying = !trying">
          {{ trying ? 'what came in' : 'as students see it' }}
        </TextButton>
        <template v-if="mayEdit"
          ><span v-if="confirming" class="small"
            >They cannot be opened again: a single answer that comes after others were read would show whose
            it is.</span
          ><v-btn v-if="view.state === 'planned'" @click="openNow">Open now</v-btn
          ><v-btn v-if="view.state === 'open'" @click="askOrEnd">{{
            confirming ? 'Close for good' : endVerb
          }}</v-btn
          ><v-btn v-if="confirming" class="quiet" @click="confirming = false">Cancel</v-btn
          ><v-btn v-if="!view.staff.isFinal && !confirming" @click="editing = true">Change</v-btn
          ><v-btn v-if="view.staff.mayAskAgain" @click="askingAgain = true">Ask again</v-btn
          ><TextButton v-if="view.staff.mayChange" @click="remove"> Delete </TextButton></template
        >
      </div>
    </div>
    <nav v-if="view.rounds.length > 1 && !askingAgain" class="rounds" aria-label="Rounds of questions">
      <NuxtLink
        v-for="r in view.rounds"
        :key="r.number"
        :to="{ query: { round: r.number } }"
        :aria-current="r.number === view.round?.number ? 'page' : undefined"
        >{{ roundName(r) }}</NuxtLink
      >
    </nav>
    <template v-if="view.staff">
      <ClosingEditor
        v-if="editing || askingAgain || (isNew && mayEdit)"
        :key="String(askingAgain)"
        :view="view"
        :again="askingAgain"
        :busy="busy"
        :problem="problem"
        :problems="problems"
        @keep="keep"
        @cancel="leaveEditor"
      />
      <p v-else-if="isNew" class="invite">No closing questions are asked here.</p>
      <ClosingForm v-else-if="trying" :view="view" :busy="false" :problem="null" trial />
      <template v-else>
        <p class="count">
          <b class="num">{{ view.staff.answered }}</b> of {{ view.staff.asked }} have answered.
          {{ view.round!.named ? 'Names are kept.' : 'Names are not kept.' }}
        </p>
        <p v-if="view.staff.why" class="why">{{ view.staff.why }}</p>
        <p v-else-if="view.staff.answered === 0" class="invite">
          Nothing has come in yet. As answers come, they are summed up here.
        </p>
        <ClosingResults v-if="view.staff.results && view.staff.answered > 0" :view="view" />
        <details v-if="view.staff.people.length > 0" class="people">
          <summary>Who answered what</summary>
          <div class="scroll">
            <table class="rows">
              <thead>
                <tr>
                  <th>student</th>
                  <th v-for="(q, i) in view.round!.questions" :key="q.id" :title="q.text">{{ i + 1 }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="p in view.staff.people" :key="p.id">
                  <th scope="row">{{ p.name }}</th>
                  <td v-for="q in view.round!.questions" :key="q.id">
                    {{
                      q.kind === 'choice'
                        ? ((p.answers[q.id] as number[] | undefined) ?? []).map(n => q.options[n]).join(', ')
                        : (p.answers[q.id] ?? '')
                    }}
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
        </details>
      </template>
    </template>
    <template v-else>
      <p v-if="thanks || (view.mine?.answered && !view.round!.named)" class="invite" role="status">
        {{ thanks ? 'Thank you: it is in.' : 'You have answered these questions. Thank you.' }}
        {{ view.round!.named ? 'Until it closes you can change it below.' : '' }}
      </p>
      <p v-if="view.state === 'closed'" class="invite">These questions have closed.</p>
      <ClosingForm
        v-else-if="view.round!.named || !view.mine?.answered"
        :view="view"
        :busy="busy"
        :problem="problem"
        @answer="answer"
      />
    </template>
  </main>
</template>

<style scoped>
.closing {
  overflow: auto;
  flex: 1;
}
.leaf-head h1 a {
  color: inherit;
  text-decoration: none;
}
.leaf-head h1 a:hover {
  text-decoration: underline;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: flex-end;
  gap: 6px 16px;
  margin-left: auto;
}
.rounds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  margin-bottom: 18px;
  font-size: 0.875rem;
}
.rounds a {
  padding: 4px 0;
  color: var(--harbour);
}
.rounds [aria-current] {
  color: inherit;
  font-weight: 600;
  text-decoration: none;
  border-bottom: 2px solid var(--ember);
}
.count {
  font: 400 1rem/1.5 var(--read);
  margin-bottom: 8px;
}
.why {
  background: var(--harbour-soft);
  border-radius: var(--r);
  padding: 10px 14px;
  max-width: 44rem;
  line-height: 1.5;
}
.people {
  margin-top: 26px;
}
.people summary {
  cursor: pointer;
  color: var(--harbour);
}
.scroll {
  overflow-x: auto;
}
.people td {
  max-width: 22rem;
}
</style>
