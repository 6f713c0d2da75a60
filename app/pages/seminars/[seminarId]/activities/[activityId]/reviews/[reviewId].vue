<script setup lang="ts">
import LinesInput from '~/components/controls/LinesInput.vue'
import { countWords } from '#core/contributing/measureText'
import type { OwnReviews, Passage, ReviewDesk } from '#shared/kinds/review/review'
import type { Lack } from '#core/kinds/review/missing'
import { lackSentence } from '~/kinds/review/lackSentence'
import { useNamesCheck } from '~/kinds/review/useNamesCheck'
import NamesFoundPanel from '~/kinds/review/NamesFoundPanel.vue'
import ReviewForm from '~/kinds/review/ReviewForm.vue'
import WorkPane from '~/kinds/review/WorkPane.vue'
import TwoTexts from '~/components/contributing/TwoTexts.vue'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useReviewDraft } from '~/composables/contributing/useReviewDraft'
import { useTimes } from '~/composables/planning/useTimes'
import { newKey, useApi } from '~/composables/shell/useApi'
import { sentenceKeys } from '~/composables/shell/sentenceKeys'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { useNotices } from '~/stores/notices'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** The reviewing room: the work on one side, what one says of it on the other. */
definePageMeta({ layout: 'seminar', key: route => `review-${String(route.params.reviewId)}` })
const route = useRoute()
const api = useApi()
const notices = useNotices()
const { dayTime, now } = useTimes()
const base = `/seminars/${String(route.params.seminarId)}/activities/${String(route.params.activityId)}`
const {
  data: desk,
  error,
  refresh,
} = await useAsyncData(`review-${String(route.params.reviewId)}`, () =>
  api.call(reviewEndpoints.readReview, { params: { reviewId: String(route.params.reviewId) } }),
)
useHead({ title: () => (desk.value ? `${desk.value.called}: ${desk.value.title}` : 'Review') })
const draft = desk.value ? useReviewDraft(desk.value) : null
const open = computed(() => desk.value?.open === true)
const lit = ref<number | null>(null)
const busy = ref(false)
const names = useNamesCheck(() => desk.value!.activityId)
const others = shallowRef<OwnReviews['given']>([])
onMounted(() => {
  void api
    .call(reviewEndpoints.readOwnReviews, { params: { activityId: String(route.params.activityId) } })
    .then(own => {
      others.value = own.given
    })
    .catch(() => {})
})
const after = computed(() => {
  const rest = others.value.filter(g => g.id !== desk.value?.id && g.state !== 'in')
  return rest[0] ?? null
})

function remark(passage: Passage) {
  draft!.change({ passages: [...draft!.given.value.passages, passage] }, true)
  lit.value = draft!.given.value.passages.length - 1
  void nextTick(() => document.getElementById(`passage-${lit.value}`)?.focus())
}
function drop(i: number) {
  draft!.change({ passages: draft!.given.value.passages.filter((_, j) => j !== i) }, true)
  lit.value = null
  notices.say('The remark is removed.', { label: 'Undo', run: () => draft!.takeBack() })
}
async function namesAreFine(): Promise<boolean> {
  if (desk.value!.kind === 'teammate' || desk.value!.kind === 'self') return true
  const { remarks, answers, passages } = draft!.given.value
  const text = [...Object.values(remarks), ...Object.values(answers), ...passages.map(p => p.note)].join('\n')
  return names.isFine(text)
}
/** Brings what is missing into sight, with the focus where it is given. */
function showLack({ kind, id }: Lack) {
  const at = document.querySelector<HTMLElement>(`[data-part="${id}"]`)
  const field = at?.querySelector<HTMLElement>(
    kind === 'points' ? '[role="radio"], button, input' : 'textarea',
  )
  at?.scrollIntoView({ block: 'center' })
  field?.focus({ preventScroll: true })
}
async function handIn() {
  if (busy.value || !draft || !open.value) return
  if (draft.lacks.value.length > 0) {
    showLack(draft.lacks.value[0]!)
    draft.say(lackSentence(draft.lacks.value, desk.value!))
    return
  }
  busy.value = true
  try {
    if (!(await namesAreFine())) return
    const n = await draft.handIn()
    if (n === null) return
    await refresh()
    const next = after.value
    const handedInSentence = () => {
      if (n > 1) return `All ${n} are in.`
      if (desk.value!.kind === 'practice') return 'In. Beside your scores are the instructor’s.'
      return 'In.'
    }
    notices.say(
      handedInSentence(),
      desk.value!.mayTakeBack ? { label: 'Withdraw', run: takeBack } : undefined,
    )
    if (desk.value!.kind !== 'practice')
      await navigateTo(next && n === 1 ? `${base}/reviews/${next.id}` : base)
  } catch (problem) {
    notices.warn(problem)
  } finally {
    busy.value = false
  }
}
async function takeBack() {
  try {
    await api.call(reviewEndpoints.takeReviewBack, {
      params: { reviewId: desk.value!.id },
      body: { key: newKey() },
    })
    await navigateTo(`${base}/reviews/${desk.value!.id}`)
    await refresh()
  } catch (problem) {
    notices.warn(problem)
  }
}
const keys = computed<Key[]>(() => [
  {
    keys: 'e',
    does: 'remark on what is selected',
    run: () => document.querySelector<HTMLElement>('.take')?.click(),
  },
  ...sentenceKeys(() => [...document.querySelectorAll<HTMLElement>('.work .prose > *')]),
  { keys: 'Ctrl+Enter', does: 'hand it in', run: () => void handIn() },
  { keys: 'b', does: 'back to the list', run: () => void navigateTo(base) },
])
useKeys(() => keys.value)
const SAID = {
  empty: '',
  saving: 'saving …',
  saved: 'saved',
  'not saved': 'not saved',
  'two texts': '',
} as const
const privateWords = computed(() => countWords(draft?.given.value.private ?? ''))
const textOf = (g: ReviewDesk['given']) =>
  [...Object.values(g.remarks), ...Object.values(g.answers)].join('\n')
const ofWhom = computed(() => {
  if (desk.value?.kind === 'practice') return 'a sample to practise on'
  if (desk.value?.kind === 'self') return 'your own'
  if (desk.value?.kind === 'teammate') return 'your teammate'
  return 'you do not know whose it is'
})
const lackWords = computed(() => {
  const lacks = draft?.lacks.value.length ?? 0
  if (lacks === 0)
    return desk.value?.together && after.value ? 'this one is ready' : 'all that is asked for is there'
  return `${lacks} still asked for`
})
</script>

<template>
  <ProblemPage v-if="error || !desk || !draft" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="room">
    <header class="desk-head">
      <KindTag kind="review" />
      <h1>
        <NuxtLink :to="base">{{ desk.title }}</NuxtLink>
      </h1>
      <span class="small muted"
        >{{ ofWhom
        }}<template v-if="desk.ownCalled"
          >; to its author you are <b>{{ desk.ownCalled }}</b></template
        ></span
      >
      <span class="grow" />
      <span v-if="desk.dueAt" class="small muted"
        >{{ now > new Date(desk.dueAt) ? 'was due' : 'until' }} {{ dayTime(desk.dueAt) }}</span
      >
      <span class="small state" role="status" :class="{ no: draft.state.value === 'not saved' }">{{
        SAID[draft.state.value]
      }}</span>
    </header>
    <div class="panes" :class="{ alone: !desk.work }">
      <WorkPane
        v-if="desk.work"
        :work="desk.work"
        :called="desk.called"
        :passages="draft.given.value.passages"
        :lit="lit"
        :open="open"
        @passage="remark"
      />
      <section class="given" aria-label="What you give">
        <TwoTexts
          v-if="draft.theirs.value"
          sentence="This review was changed in another window. Nothing was overwritten; keep the one you want."
          :mine="textOf(draft.given.value)"
          :theirs="textOf(draft.theirs.value.given)"
          their-name="In the other window"
          @choose="draft.settle"
        />
        <p v-if="desk.state === 'in'" class="told">
          <b>This is in.</b>{{ ' '
          }}<TextButton v-if="desk.mayTakeBack" @click="takeBack"> Withdraw it to go on writing</TextButton
          ><span v-else-if="desk.kind === 'practice'">Beside your scores are the instructor’s.</span>
        </p>
        <p v-else-if="desk.practiseFirst" class="told">
          Practise first: this review opens once a sample is in.{{ ' '
          }}<NuxtLink :to="`${base}/reviews/${desk.practiseFirst}`">To the sample</NuxtLink>
        </p>
        <p v-else-if="!open" class="told">Reviewing has not begun yet.</p>
        <h2 v-if="!desk.work" class="whom">{{ desk.called }}</h2>
        <ReviewForm
          :desk="desk"
          :given="draft.given.value"
          :lacks="draft.lacks.value"
          :open="open"
          :lit="lit"
          @change="draft.change"
          @light="lit = $event"
          @drop="drop"
        />
        <section v-if="desk.answerHtml" class="answered">
          <h3>The author answered</h3>
          <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
          <div class="prose" dir="auto" v-html="desk.answerHtml" />
        </section>
        <section class="private">
          <label :for="`private-${desk.id}`"><b>To your instructor alone</b> · nobody else reads it</label>
          <LinesInput
            :id="`private-${desk.id}`"
            rows="2"
            :readonly="!open"
            :value="draft.given.value.private"
            @input="draft.change({ private: ($event.target as HTMLTextAreaElement).value })"
          />
          <span v-if="privateWords > 0" class="hint num">{{ privateWords }} words</span>
        </section>
        <NamesFoundPanel
          v-if="names.found.value.length > 0"
          :found="names.found.value"
          what="your review"
          verb="Hand it in"
          @go-on="names.decide(true)"
          @back="names.decide(false)"
        />
        <p v-if="draft.problem.value" class="field-problem" role="alert">
          {{ draft.problem.value }}
          <TextButton v-if="draft.state.value === 'not saved'" @click="draft.change({})">
            Try again
          </TextButton>
        </p>
        <div v-if="desk.state !== 'in' && open" class="foot">
          <v-btn class="main" :disabled="busy" @click="handIn"
            >{{ desk.together && desk.kind !== 'practice' ? 'Hand all of them in' : 'Hand it in' }}
            <kbd>Ctrl ↵</kbd></v-btn
          >
          <span class="hint num">{{ lackWords }} · {{ draft.words.value }} words</span>
          <span class="grow" />
          <v-btn v-if="after" class="quiet" :to="`${base}/reviews/${after.id}`"
            >Next: {{ after.called }}</v-btn
          >
        </div>
      </section>
    </div>
  </main>
</template>

<style scoped>
.room {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.state {
  min-width: 56px;
  text-align: right;
  color: var(--ink-3);
}
.state.no {
  color: var(--brick);
}
.panes {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 500px);
}
.panes.alone {
  grid-template-columns: minmax(0, 760px);
  justify-content: center;
}
.given {
  overflow-y: auto;
  padding: 16px 22px 0;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.whom {
  font: 600 1.375rem/1.3 var(--read);
}
.told {
  background: var(--harbour-soft);
  border-radius: var(--r);
  padding: 8px 12px;
  font-size: 0.84375rem;
}
h3 {
  font: 600 0.8125rem/1.4 var(--ui);
  letter-spacing: 0;
}
.answered {
  border-left: 3px solid var(--k-review);
  padding-left: 12px;
}
.private {
  border: 1px dashed var(--line);
  border-radius: var(--r);
  padding: 8px 12px;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.private b {
  color: var(--ink);
}
.private textarea {
  display: block;
  width: 100%;
  border: 0;
  background: none;
  font: 400 0.875rem/1.45 var(--ui);
  color: var(--ink);
  resize: vertical;
  padding: 4px 0 0;
  field-sizing: content;
}
.foot {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  background: var(--paper);
  border-top: 1px solid var(--line);
  margin: auto -22px 0;
  padding: 11px 22px 12px;
}
@media (min-width: 1600px) {
  .panes {
    grid-template-columns: minmax(0, 1fr) minmax(0, 620px);
  }
}
@media (max-width: 1000px) {
  .room {
    overflow: auto;
  }
  .panes,
  .panes.alone {
    grid-template-columns: minmax(0, 1fr);
  }
  .given {
    overflow: visible;
    padding: 14px 14px 0;
  }
  .foot {
    margin: auto -14px 0;
    padding: 10px 14px;
  }
}
</style>
