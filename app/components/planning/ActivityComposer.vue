<script setup lang="ts">
import { ACTIVITY_KINDS, type ActivityKind } from '#core/contributing/kinds/kind'
import { KINDS } from '#core/contributing/kinds'
import { plainText, type RichNode } from '#core/contributing/richText'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import { fitToKind } from '#core/planning/fitToKind'
import { askedInAll, expectedLoad } from '#core/planning/load'
import { setPhaseEnd } from '#core/planning/moveSchedule'
import { checkActivity, type CheckedActivity } from '#core/planning/planChecks'
import { closesAt, isWorkingPhase, type PhaseName } from '#core/planning/schedule'
import { weekOf } from '#core/planning/week'
import type { ActivityBody, ComposerView, EffectView } from '#shared/planning/composer'
import { minutesWords } from '#core/planning/expectationWords'
import { capital, inWords, plural } from '#core/language'
import { KIND_WORDS } from '~/composables/planning/kindWords'
import { meantPeople } from '~/composables/planning/meantPeople'
import { remarkWords, type RemarkWords } from '~/composables/planning/planRemarks'
import { faultWords } from '~/composables/planning/scheduleWords'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useSharedEdit, type Stored } from '~/composables/shell/useSharedEdit'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import SavedMark from '../shell/SavedMark.vue'
import ActivityActs from './ActivityActs.vue'
import AudienceLine from './AudienceLine.vue'
import BriefEditor from './BriefEditor.vue'
import ChoicePart from './ChoicePart.vue'
import EffectPanel from './EffectPanel.vue'
import ExpectationLines from './ExpectationLines.vue'
import ExtensionList from './ExtensionList.vue'
import MarkedLine from './MarkedLine.vue'
import PromptList from './PromptList.vue'
import PublishBar from './PublishBar.vue'
import SpokenBrief from './SpokenBrief.vue'
import ActivityPreview from './ActivityPreview.vue'
import ReviewLines from './ReviewLines.vue'
import ReadingLines from './ReadingLines.vue'
import TalkLines from './TalkLines.vue'
import WikiLines from './WikiLines.vue'
import LexiconLines from './LexiconLines.vue'
import TimePart from './TimePart.vue'
import * as planningEndpoints from '#shared/planning/endpoints'
import * as markingEndpoints from '#shared/marking/endpoints'

/** Where an activity is planned: sentences edited in place, what students will see beside them, and what to look at before publishing. */
const props = defineProps<{ view: ComposerView }>()
const emit = defineEmits<{ stored: [view: ComposerView]; reload: [] }>()
const api = useApi()
const notices = useNotices()
const seminar = useSeminarStore()
const { attempt } = useSending()
const shell = computed(() => seminar.shell!)
const toStored = (v: ComposerView): Stored<ActivityBody> => ({
  version: v.version,
  body: v.body as ActivityBody,
  savedBy: v.savedBy,
})
const live = computed(() => props.view.state === 'published') // then changes wait until they are applied
const tell = ref(false)
const edit = useSharedEdit<ActivityBody>({
  stored: toStored(props.view),
  auto: () => !live.value,
  shelf: `jovrel:activity:${props.view.id}`,
  theirsOf: theirs => toStored(theirs as ComposerView),
  send: async (change, baseVersion) => {
    const saved = await api.call(planningEndpoints.changePlannedActivity, {
      params: { activityId: props.view.id },
      body: {
        key: newKey(),
        baseVersion,
        change,
        tell: tell.value,
      },
    })
    emit('stored', saved)
    return toStored(saved)
  },
})
const body = computed(() => edit.mine.value)
const disabled = computed(() => props.view.locked || shell.value.archived)
const lit = ref<string | null>(null)
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }
const starterOpen = ref(props.view.body.starter !== null)
const unfit = shallowRef<readonly ExpectationRule[]>([]) // sentences that do not apply to the kind chosen: kept, so that changing back brings them back
const refused = ref<string | null>(null)
const summary = computed(() => plainText(body.value.brief).split('\n').slice(0, 2).join(' '))

// -- schedule
const schedule = computed(() => ({
  opensAt: new Date(body.value.opensAt),
  phases: body.value.phases.map(p => ({
    name: p.name,
    startsAt: new Date(p.startsAt),
    endsAt: new Date(p.endsAt),
  })),
}))
const stored = (
  phases: ReadonlyArray<{ readonly name: PhaseName; readonly startsAt: Date; readonly endsAt: Date }>,
) => phases.map(p => ({ name: p.name, startsAt: p.startsAt.toISOString(), endsAt: p.endsAt.toISOString() }))
function setEnd(phase: PhaseName, at: string) {
  const moved = setPhaseEnd(schedule.value, phase, new Date(at), shell.value.timeZone)
  refused.value = moved.kind === 'refused' ? `${faultWords(moved.fault)} Nothing was moved.` : null
  if (moved.kind === 'moved') edit.change({ phases: stored(moved.schedule.phases) })
}
const marking = computed(() => body.value.phases.find(p => p.name === 'mark'))
const closes = computed(() => closesAt(schedule.value).toISOString())

// -- kind
function setKind(kind: ActivityKind) {
  if (kind === body.value.kind) return
  const rules = [...body.value.rules.map(r => r.rule), ...unfit.value]
  const fitted = fitToKind(schedule.value.phases, rules, kind)
  unfit.value = fitted.unfit
  const ids = body.value.rules
  edit.change({
    kind,
    phases: stored(fitted.phases),
    rules: fitted.rules.map((rule, i) => ({
      id: ids[i]?.id ?? newKey(),
      rule,
      needed: ids[i]?.needed ?? true,
    })),
  })
  if (fitted.unfit.length > 0)
    notices.say(
      `A ${KIND_WORDS[kind].toLowerCase()} asks for no ${fitted.unfit.some(r => r.kind === 'replies') ? 'replies' : 'such thing'}; that sentence is kept aside and comes back with the kind.`,
    )
}

// -- checks
const people = computed(() => meantPeople(props.view, body.value))
const rubric = computed(
  () => props.view.rubrics.find(r => r.versionId === body.value.rubricVersionId) ?? null,
)
const checked = computed<CheckedActivity>(() => ({
  id: props.view.id,
  kind: body.value.kind,
  title: body.value.title,
  state: props.view.state,
  opensAt: schedule.value.opensAt,
  phases: schedule.value.phases,
  rules: body.value.rules.map(r => r.rule),
  briefText: plainText(body.value.brief),
  hasStarter: body.value.starter !== null && plainText(body.value.starter) !== '',
  points: body.value.points,
  rubricPoints: rubric.value
    ? pointsOf({ criteria: rubric.value.criteria.map(c => ({ ...c, outcome: null })) })
    : null,
  counted: body.value.points !== null && body.value.scale !== 'none' && !body.value.practice,
  hasCategory: body.value.categoryId !== null,
  people: people.value,
  restWeeks: body.value.rests,
}))
const earlier = computed<CheckedActivity[]>(() =>
  props.view.earlier.map(e => ({
    ...e,
    opensAt: new Date(e.opensAt),
    phases: e.phases.map(p => ({ ...p, startsAt: new Date(p.startsAt), endsAt: new Date(p.endsAt) })),
    briefText: '',
    hasStarter: true,
    points: null,
    rubricPoints: null,
    counted: false,
    hasCategory: true,
    people: 1,
    restWeeks: [],
  })),
)
const remarks = computed<RemarkWords[]>(() =>
  checkActivity(checked.value, {
    timeZone: shell.value.timeZone,
    usualDueTime: shell.value.usualDueTime,
    earlier: earlier.value,
  }).map(r => remarkWords(r, body.value, shell.value)),
)
const fine = computed(() => {
  const codes = new Set(
    checkActivity(checked.value, {
      timeZone: shell.value.timeZone,
      usualDueTime: shell.value.usualDueTime,
      earlier: earlier.value,
    }).map(r => r.code),
  )
  const load = expectedLoad(
    askedInAll(
      body.value.rules.map(r => r.rule),
      body.value.prompts.length,
    ),
    people.value,
    KINDS[body.value.kind].readBy === 'class',
    props.view.pace,
  )
  const lines = [
    `Workload: ${minutesWords(load.writing + load.reading)} for each student; ${minutesWords(load.marking)} for you to mark.`,
  ]
  if (!codes.has('unusualTime')) lines.push(`Due times are your usual ${shell.value.usualDueTime}.`)
  if (rubric.value && !codes.has('pointsApart'))
    lines.push(`The levels add up to ${(checked.value.rubricPoints ?? 0) / 100}.`)
  if (checked.value.hasStarter) lines.push('A starter sets length and tone.')
  return lines
})
function remedy(change: NonNullable<RemarkWords['remedy']>['change']) {
  if (typeof change !== 'string') {
    edit.change(change)
    return
  }
  if (change === 'starter') {
    starterOpen.value = true
    if (!body.value.starter) edit.change({ starter: EMPTY })
  }
  void nextTick(() => {
    const at = document.querySelector<HTMLElement>(`[data-place="${change}"]`)
    at?.scrollIntoView({ block: 'center' })
    at?.querySelector<HTMLElement>('[contenteditable], button, select, input')?.focus()
  })
}

// -- what a change to something published would do
const effect = shallowRef<EffectView | null>(null)
const effectProblem = ref<string | null>(null)
let asking: ReturnType<typeof setTimeout> | undefined
watch(edit.changes, changes => {
  if (!live.value) return
  clearTimeout(asking)
  effect.value = null
  effectProblem.value = null
  if (Object.keys(changes).length === 0) return
  asking = setTimeout(async () => {
    try {
      effect.value = await api.call(planningEndpoints.readPlanEffect, {
        params: { activityId: props.view.id },
        body: { change: changes },
      })
    } catch (error) {
      effectProblem.value = error instanceof Error ? error.message : String(error)
    }
  }, 300)
})
onBeforeUnmount(() => clearTimeout(asking))
async function apply(andTell: boolean) {
  const before = Object.fromEntries(
    Object.keys(edit.changes.value).map(field => [field, edit.base.value[field as keyof ActivityBody]]),
  ) as Partial<ActivityBody>
  tell.value = andTell
  await edit.save()
  tell.value = false
  if (edit.state.value !== 'saved') return
  notices.say(andTell ? 'Changed, and everyone who takes part is told.' : 'Changed.', {
    label: 'Undo',
    run: async () => {
      edit.change(before)
      await edit.save()
    },
  })
}
async function publish(opens: string, andTell: boolean) {
  await edit.save()
  if (edit.state.value !== 'saved') return
  await attempt(async () => {
    const answer = await api.call(planningEndpoints.publishActivity, {
      params: { activityId: props.view.id },
      body: {
        key: newKey(),
        baseVersion: edit.version.value!,
        opens,
        tell: andTell,
      },
    })
    emit('reload')
    await seminar.load(props.view.seminarId)
    notices.say(
      answer.state === 'published'
        ? `Published${andTell ? `, and ${inWords(people.value)} ${plural(people.value, 'student')} are told` : ''}.`
        : 'Scheduled: it opens by itself.',
      { label: 'Undo', run: () => void unpublish() },
    )
  })
}
/** A rubric of this activity's own: made, attached, and opened to be written. */
const writeRubric = () =>
  attempt(async () => {
    const level = (title: string, n: number) => ({ title, points: n * 100, pointsFrom: null, descriptor: '' })
    const made = await api.call(markingEndpoints.makeRubric, {
      params: { seminarId: props.view.seminarId },
      body: {
        key: newKey(),
        rubric: {
          title: body.value.title || 'New rubric',
          criteria: [
            {
              title: 'First criterion',
              scope: 'own',
              weight: 1,
              suggestFrom: null,
              outcome: null,
              levels: [level('Begins', 2), level('Gets there', 6), level('Excels', 10)],
            },
          ],
        },
      },
    })
    edit.change({
      rubricVersionId: made.versionId,
      points: 1000,
      scale: body.value.scale === 'none' ? 'points' : body.value.scale,
    })
    await edit.save()
    await navigateTo(`/seminars/${props.view.seminarId}/rubrics/${made.id}`)
  })
const unpublish = () =>
  attempt(async () => {
    const view = await api.call(planningEndpoints.readPlannedActivity, {
      params: { activityId: props.view.id },
    })
    await api.call(planningEndpoints.unpublishActivity, {
      params: { activityId: props.view.id },
      body: { key: newKey(), baseVersion: view.version },
    })
    emit('reload')
    await seminar.load(props.view.seminarId)
  })
// what is stored anew from outside (published, unlocked) is the new ground
watch(
  () => props.view,
  view => {
    if (view.version !== edit.version.value && !edit.changed.value) edit.take(toStored(view))
  },
)

const FIELD_WORDS: Readonly<Record<string, string>> = {
  title: 'the title',
  brief: 'the brief',
  starter: 'the starter',
  phases: 'the due times',
  rules: 'the expectations',
  points: 'the points',
  audience: 'for whom it is',
  opensAt: 'the opening',
  prompts: 'the prompts',
  jointSeminarIds: 'who takes part',
  attach: 'the files',
  rubricVersionId: 'the rubric',
  categoryId: 'the category',
  kind: 'the kind',
  wiki: 'the wiki’s pages',
  lexicon: 'the lexicon’s ways',
  reading: 'what is read',
}
const clashText = (value: unknown): string => {
  if (typeof value === 'object' && value !== null && 'type' in value)
    return plainText(value as RichNode).slice(0, 160)
  if (typeof value === 'string' || typeof value === 'number') return String(value)
  return 'as they left it'
}
const showChoices = computed(() => [
  { value: 'open', text: 'open from the start' },
  {
    value: 'own',
    text: 'hidden until their own is in',
    note: 'Write before you read. Staff always see all.',
  },
  { value: 'day', text: 'hidden until a day you choose', note: 'Then everything is shown at once.' },
])
const show = computed({
  get: () => {
    if (body.value.hiddenUntil) return 'day'
    if (body.value.writeFirst) return 'own'
    return 'open'
  },
  set: (value: string) =>
    edit.change({
      writeFirst: value === 'own',
      hiddenUntil:
        value === 'day'
          ? (body.value.hiddenUntil ?? body.value.phases.find(p => isWorkingPhase(p.name))!.endsAt)
          : null,
    }),
})
const week = computed(() => {
  const n = weekOf(new Date(body.value.opensAt), {
    firstDay: shell.value.weeks[0]!.startsAt.slice(0, 10),
    weeks: shell.value.weeks.length,
    timeZone: shell.value.timeZone,
  })
  return shell.value.weeks[n - 1]?.label ?? n
})
const whatShows = computed(() => {
  if (body.value.kind === 'discussion') return show.value === 'open' ? 'posts are' : 'posts stay'
  if (show.value === 'open') return 'work is'
  return 'work stays'
})
</script>

<template>
  <div class="composer">
    <main>
      <p class="kinds">
        <span class="kind" :style="{ '--k': `var(--k-${body.kind})` }">{{
          KIND_WORDS[body.kind]
        }}</span><template v-if="!disabled"
          ><span class="hint">or make it a</span
          ><button
            v-for="k in ACTIVITY_KINDS.filter(x => x !== body.kind)"
            :key="k"
            type="button"
            class="link"
            @click="setKind(k)"
          >
            {{ KIND_WORDS[k] }}
          </button></template
        >
        <span class="grow" /><label class="hint"
          >in
          <select
            class="in bare"
            :value="body.unitId ?? ''"
            :disabled="disabled"
            aria-label="Unit"
            @change="edit.change({ unitId: ($event.target as HTMLSelectElement).value || null })"
          >
            <option value="">all term</option>
            <option v-for="(u, i) in view.units" :key="u.id" :value="u.id">
              Unit {{ i + 1 }} · {{ u.title }}
            </option>
          </select>
          · week {{ week }}</label
        >
      </p>
      <h1>
        <input
          class="title"
          :value="body.title"
          :readonly="disabled"
          aria-label="Title"
          :aria-invalid="Boolean(edit.problems.value.title)"
          @input="edit.change({ title: ($event.target as HTMLInputElement).value })"
        />
      </h1>
      <section v-if="edit.clashes.value.length > 0" class="clash" role="alert">
        <p>
          {{ edit.joined.value }} saved this meanwhile. What only one of you changed is joined; of these,
          choose:
        </p>
        <div v-for="c in edit.clashes.value" :key="c.field">
          <b>{{ capital(FIELD_WORDS[c.field] ?? String(c.field)) }}</b><button
            class="chip"
            type="button"
            @click="edit.settle(c.field, 'mine')"
          >
            mine: {{ clashText(c.mine) }}</button
          ><button class="chip" type="button" @click="edit.settle(c.field, 'theirs')">
            theirs: {{ clashText(c.theirs) }}
          </button>
        </div>
      </section>
      <div data-place="brief">
        <BriefEditor
          v-if="!disabled"
          :doc="body.brief"
          label="Brief"
          :seminar-id="view.seminarId"
          placeholder="What is it about, what should they bring, and which question are they to answer?"
          @write="edit.change({ brief: $event })"
        />
        <p v-else class="prose still">{{ plainText(body.brief) }}</p>
      </div>
      <SpokenBrief
        v-if="!disabled"
        :file-id="body.spokenFileId"
        :seminar-id="view.seminarId"
        @change="edit.change({ spokenFileId: $event })"
      />
      <section class="asks" data-place="expectation">
        <p class="lead">
          <b>Expectations</b
          ><span class="hint">{{
            disabled ? 'locked' : 'change any underlined part; each is checked for the student as they write'
          }}</span>
        </p>
        <ExpectationLines
          :body="body"
          :disabled="disabled"
          @change="edit.change({ rules: $event })"
          @end="setEnd"
          @light="lit = $event"
        >
          <p v-if="KINDS[body.kind].readBy === 'class' && body.kind !== 'wiki'" class="line">
            Others’
            {{ whatShows }}
            <ChoicePart
              v-model="show"
              label="What others write is"
              :choices="showChoices"
              :disabled="disabled"
              @opened="lit = $event ? 'writeFirst' : null"
            /><template v-if="body.hiddenUntil"
              >:
              <TimePart
                label="Shown from"
                :model-value="body.hiddenUntil"
                :disabled="disabled"
                @update:model-value="edit.change({ hiddenUntil: $event })" /></template
            >.
          </p>
        </ExpectationLines>
        <p v-for="r in unfit" :key="r.kind" class="unfit hint">
          Kept aside, because it does not apply here:
          {{ r.kind === 'replies' ? `replies to ${r.need} classmates` : r.kind }}.
        </p>
        <p v-if="refused" class="field-problem" role="alert">{{ refused }}</p>
      </section>
      <section class="asks">
        <p class="lead"><b>How it goes</b></p>
        <ReviewLines
          v-if="body.kind === 'review'"
          :body="body"
          :view="view"
          :disabled="disabled"
          @change="edit.change($event)"
        />
        <WikiLines
          v-if="body.kind === 'wiki'"
          :body="body"
          :disabled="disabled"
          @change="edit.change($event)"
        />
        <LexiconLines
          v-if="body.kind === 'lexicon'"
          :body="body"
          :disabled="disabled"
          @change="edit.change($event)"
        />
        <ReadingLines
          v-if="body.kind === 'reading'"
          :body="body"
          :view="view"
          :disabled="disabled"
          @change="edit.change($event)"
        />
        <TalkLines
          v-if="body.kind !== 'review'"
          :body="body"
          :disabled="disabled"
          :contributions="view.contributions"
          :sections="view.sections.length"
          @change="edit.change($event)"
          @light="lit = $event"
        />
      </section>
      <dl>
        <dt>Starter</dt>
        <dd data-place="starter">
          <BriefEditor
            v-if="starterOpen && !disabled"
            :doc="body.starter ?? EMPTY"
            label="Starter"
            :seminar-id="view.seminarId"
            placeholder="Open the talk yourself: an example that sets length and tone."
            @write="edit.change({ starter: $event })"
          /><button v-else-if="!disabled" class="link small" type="button" @click="remedy('starter')">
            + an opening example by you</button
          ><span v-else>{{ body.starter ? plainText(body.starter) : 'none' }}</span>
        </dd>
        <dt>Prompts</dt>
        <dd><PromptList :body="body" :disabled="disabled" @change="edit.change({ prompts: $event })" /></dd>
        <dt>For whom</dt>
        <dd data-place="audience">
          <AudienceLine
            :body="body"
            :view="view"
            :disabled="disabled"
            @change="edit.change($event)"
          /><ExtensionList
            :view="view"
            :closes-at="closes"
            :disabled="shell.archived"
            @changed="emit('reload')"
          />
        </dd>
        <dt>Marked with</dt>
        <dd data-place="category">
          <MarkedLine
            :body="body"
            :view="view"
            :disabled="disabled"
            @change="edit.change($event)"
            @write="writeRubric"
          />
        </dd>
        <template v-if="marking"
          ><dt>Returned</dt>
          <dd class="line">
            by
            <TimePart
              label="Returned by"
              :model-value="marking.endsAt"
              :disabled="disabled"
              :due="false"
              @update:model-value="setEnd('mark', $event)"
            />; marks and letters are held until you return them,
            <ChoicePart
              label="Returned"
              :model-value="body.returnTogether"
              :choices="[
                { value: true, text: 'all together' },
                { value: false, text: 'one by one' },
              ]"
              :disabled="disabled"
              @update:model-value="edit.change({ returnTogether: $event })"
            />.
          </dd></template
        >
      </dl>
      <ActivityActs :view="view" @reload="emit('reload')" />
    </main>
    <aside>
      <h2>What students will see <span>as you type</span></h2>
      <ActivityPreview :body="body" :lit="lit" :summary="summary" />
      <h2>
        {{ live ? 'Plan checks' : 'Before you publish' }}
        <span
          >{{ remarks.length > 0 ? `${remarks.length} to look at` : 'nothing to look at' }},
          {{ fine.length }} fine</span
        >
      </h2>
      <ul class="checks">
        <li v-for="r in remarks" :key="r.text" :class="r.level">
          <b>{{ r.level }}</b>
          <p>
            {{ r.text }}
            <button v-if="r.remedy && !disabled" class="link" type="button" @click="remedy(r.remedy.change)">
              {{ r.remedy.label }}
            </button>
          </p>
        </li>
        <li v-for="line in fine" :key="line" class="fine">
          <b>fine</b>
          <p>{{ line }}</p>
        </li>
      </ul>
    </aside>
    <footer>
      <template v-if="live && edit.changed.value">
        <EffectPanel class="grow" :effect="effect" :problem="effectProblem ?? edit.problem.value" />
        <v-btn class="quiet" @click="edit.letGo()">Let the changes go</v-btn>
        <v-btn :disabled="Boolean(effectProblem) || edit.clashes.value.length > 0" @click="apply(false)"
          >Change it</v-btn
        >
        <v-btn
          class="main"
          :disabled="Boolean(effectProblem) || edit.clashes.value.length > 0"
          @click="apply(true)"
          >Change it and tell students</v-btn
        >
      </template>
      <template v-else-if="live">
        <SavedMark
          class="grow"
          :state="edit.state.value"
          :problem="edit.problem.value"
          :joined="edit.joined.value"
        />
        <NuxtLink :to="`/seminars/${view.seminarId}/activities/${view.id}`">See it</NuxtLink>
        <v-btn v-if="view.contributions === 0" @click="unpublish">Back to draft</v-btn>
      </template>
      <PublishBar
        v-else
        :view="view"
        :body="body"
        :people="people"
        :disabled="disabled || edit.clashes.value.length > 0"
        @publish="publish"
        @unschedule="unpublish"
        ><SavedMark
          :state="edit.state.value"
          :problem="edit.problem.value"
          :joined="edit.joined.value"
          @retry="edit.save()"
      /></PublishBar>
    </footer>
  </div>
</template>

<style scoped>
.composer {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 444px;
  grid-template-rows: minmax(0, 1fr) auto;
}
main {
  overflow: auto;
  padding: 12px 36px 30px 56px;
  background: var(--sheet);
}
aside {
  overflow: auto;
  padding: 14px 20px 20px;
  border-left: 1px solid var(--line);
}
footer {
  grid-column: 1 / -1;
  min-height: 58px;
  padding: 9px 20px 9px 56px;
  background: var(--sunken);
  border-top: 1px solid var(--line);
  display: flex;
  gap: 12px;
  align-items: center;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 9px;
  align-items: baseline;
  font-size: 0.8125rem;
}
.kinds .link {
  color: var(--ink-2);
}
.kind {
  font: 600 0.78125rem/1 var(--ui);
  color: var(--k);
  border-left: 4px solid var(--k);
  padding: 2px 0 2px 7px;
}
.bare {
  border-color: transparent;
  background: transparent;
  padding: 1px 2px;
  font-size: 0.8125rem;
  max-width: 12rem;
}
.title {
  width: 100%;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: transparent;
  font: 600 1.5625rem/1.35 var(--read);
  letter-spacing: -0.015em;
  color: var(--ink);
  padding: 4px 0 6px;
  outline: none;
}
.title:focus {
  border-bottom-color: var(--ember);
  box-shadow: 0 1px 0 var(--ember);
  border-radius: 0;
}
.still {
  white-space: pre-line;
  padding: 10px 0;
}
.asks {
  border-top: 1px solid var(--line);
  padding-top: 8px;
  margin-top: 4px;
}
.lead {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  font-size: 0.8125rem;
  margin-bottom: 2px;
}
.lead b {
  color: var(--ink-2);
}
.line {
  font: 400 1.03125rem/2 var(--read);
}
dl {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 10px 0;
  margin: 14px 0 0;
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
dt {
  font: 600 0.8125rem/2 var(--ui);
  color: var(--ink-2);
}
dd {
  margin: 0;
  min-width: 0;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--line-soft);
}
dd:last-child {
  border-bottom: 0;
}
h2 {
  font: 600 1rem/1.3 var(--read);
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin: 0 0 8px;
}
h2 span {
  font: 400 0.78125rem/1 var(--ui);
  color: var(--ink-3);
}
.preview {
  margin-bottom: 18px;
}
.checks {
  list-style: none;
}
.checks li {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr);
  padding: 6px 0;
  border-bottom: 1px solid var(--line-soft);
  font-size: 0.84375rem;
  line-height: 1.4;
}
.checks b {
  font-weight: 600;
}
.missing b {
  color: var(--brick);
}
.consider b {
  color: var(--ember);
}
.fine b {
  color: var(--moss);
}
.checks p {
  color: var(--ink-2);
}
.checks .link {
  font-weight: 600;
}
.clash {
  background: var(--ember-soft);
  border-radius: var(--r);
  padding: 10px 14px;
  display: grid;
  gap: 8px;
  margin: 8px 0;
}
.clash div {
  display: flex;
  gap: 8px;
  align-items: baseline;
  flex-wrap: wrap;
}
.clash .chip {
  max-width: 26rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.grow {
  flex: 1;
}
@media (max-width: 1000px) {
  .composer {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto;
    overflow: auto;
  }
  main,
  aside {
    overflow: visible;
    padding: 12px 18px 20px;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
  footer {
    padding: 9px 18px;
    flex-wrap: wrap;
    position: sticky;
    bottom: 0;
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
