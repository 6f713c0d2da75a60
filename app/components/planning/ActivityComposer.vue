<script setup lang="ts">
import { KINDS } from '#core/kinds'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import { setPhaseEnd } from '#core/planning/moveSchedule'
import { closesAt, type PhaseName } from '#core/planning/schedule'
import type { ComposerView } from '#shared/planning/composer'
import * as markingEndpoints from '#shared/marking/endpoints'
import type { RemarkWords } from '~/composables/planning/planRemarks'
import { faultWords } from '~/composables/planning/scheduleWords'
import { useKindChoice } from '~/composables/planning/useKindChoice'
import { usePlanChecks } from '~/composables/planning/usePlanChecks'
import { usePlanEdit } from '~/composables/planning/usePlanEdit'
import { usePublishing } from '~/composables/planning/usePublishing'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useSeminarStore } from '~/stores/seminar'
import ActivityActs from './ActivityActs.vue'
import ActivityPreview from './ActivityPreview.vue'
import AudienceLine from './AudienceLine.vue'
import BriefEditor from './BriefEditor.vue'
import ComposerChecks from './composer/ComposerChecks.vue'
import ComposerClashes from './composer/ComposerClashes.vue'
import ComposerFoot from './composer/ComposerFoot.vue'
import ComposerHead from './composer/ComposerHead.vue'
import KindLines from './composer/KindLines.vue'
import OthersShownLine from './composer/OthersShownLine.vue'
import ReturnedLine from './composer/ReturnedLine.vue'
import ExpectationLines from './ExpectationLines.vue'
import ExtensionList from './ExtensionList.vue'
import MarkedLine from './MarkedLine.vue'
import PromptList from './PromptList.vue'
import SpokenBrief from './SpokenBrief.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Where an activity is planned: sentences edited in place, what students will see beside them, and what to look at before publishing. */
const props = defineProps<{ view: ComposerView }>()
const emit = defineEmits<{ stored: [view: ComposerView]; reload: [] }>()
const api = useApi()
const seminar = useSeminarStore()
const { attempt } = useSending()
const shell = computed(() => seminar.shell!)
const { edit, live, effect, effectProblem, apply } = usePlanEdit(
  () => props.view,
  view => emit('stored', view),
)
const body = computed(() => edit.mine.value)
const { people, remarks, fine } = usePlanChecks(
  () => props.view,
  () => body.value,
  () => shell.value,
)
const { publish, unpublish } = usePublishing(
  () => props.view,
  edit,
  () => people.value,
  () => emit('reload'),
)
const disabled = computed(() => props.view.locked || shell.value.archived)
const lit = ref<string | null>(null)
const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }
const starterOpen = ref(props.view.body.starter !== null)
const summary = computed(() => plainText(body.value.brief).split('\n').slice(0, 2).join(' '))

// -- schedule
const refused = ref<string | null>(null)
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
const { unfit, choose: setKind } = useKindChoice(
  () => body.value,
  () => shell.value,
  edit.change,
)
const unfitWords = (rule: ExpectationRule) =>
  rule.kind === 'replies' ? `replies to ${rule.need} classmates` : rule.kind
const canHideOthers = computed(() => {
  const { readBy, standsIn } = KINDS[body.value.kind]
  return readBy === 'class' && standsIn === 'thread'
})
const hasStarterLine = computed(() => KINDS[body.value.kind].wantsStarter || body.value.starter !== null)
// -- what a check offers
function remedy(change: NonNullable<RemarkWords['remedy']>['change']) {
  if (typeof change !== 'string') {
    edit.change(change)
    return
  }
  if (change === 'starter') openStarter()
  void nextTick(() => {
    const at = document.querySelector<HTMLElement>(`[data-place="${change}"]`)
    at?.scrollIntoView({ block: 'center' })
    at?.querySelector<HTMLElement>('[contenteditable], button, select, input')?.focus()
  })
}
function openStarter() {
  starterOpen.value = true
  if (!body.value.starter) edit.change({ starter: EMPTY })
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
              outcomes: [],
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
</script>

<template>
  <div class="composer">
    <main>
      <ComposerHead
        :body="body"
        :view="view"
        :shell="shell"
        :disabled="disabled"
        :problem="edit.problems.value.title"
        @change="edit.change($event)"
        @kind="setKind"
      />
      <ComposerClashes
        v-if="edit.clashes.value.length > 0"
        :clashes="edit.clashes.value"
        :by="edit.joined.value"
        @settle="edit.settle"
      />
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
          <OthersShownLine
            v-if="canHideOthers"
            :body="body"
            :disabled="disabled"
            @change="edit.change($event)"
            @light="lit = $event"
          />
        </ExpectationLines>
        <p v-for="r in unfit" :key="r.kind" class="unfit hint">
          Kept aside, because it does not apply here: {{ unfitWords(r) }}.
        </p>
        <p v-if="refused" class="field-problem" role="alert">{{ refused }}</p>
      </section>
      <section class="asks">
        <p class="lead"><b>How it goes</b></p>
        <KindLines
          :body="body"
          :view="view"
          :disabled="disabled"
          @change="edit.change($event)"
          @light="lit = $event"
        />
      </section>
      <dl>
        <dt v-if="hasStarterLine">Starter</dt>
        <dd v-if="hasStarterLine" data-place="starter">
          <BriefEditor
            v-if="starterOpen && !disabled"
            :doc="body.starter ?? EMPTY"
            label="Starter"
            :seminar-id="view.seminarId"
            placeholder="Open the talk yourself: an example that sets length and tone."
            @write="edit.change({ starter: $event })"
          /><TextButton v-else-if="!disabled" class="small" @click="remedy('starter')">
            + an opening example by you</TextButton
          ><span v-else>{{ body.starter ? plainText(body.starter) : 'none' }}</span>
        </dd>
        <dt>Prompts</dt>
        <dd data-place="prompts">
          <PromptList :body="body" :disabled="disabled" @change="edit.change({ prompts: $event })" />
        </dd>
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
          <dd>
            <ReturnedLine
              :body="body"
              :ends-at="marking.endsAt"
              :disabled="disabled"
              @change="edit.change($event)"
              @end="setEnd('mark', $event)"
            /></dd
        ></template>
      </dl>
      <ActivityActs :view="view" @reload="emit('reload')" />
    </main>
    <aside>
      <h2>What students will see <span>as you type</span></h2>
      <ActivityPreview :body="body" :lit="lit" :summary="summary" />
      <ComposerChecks
        :title="live ? 'Plan checks' : 'Before you publish'"
        :remarks="remarks"
        :fine="fine"
        :disabled="disabled"
        @remedy="remedy"
      />
    </aside>
    <ComposerFoot
      :view="view"
      :edit="edit"
      :live="live"
      :people="people"
      :disabled="disabled"
      :effect="effect"
      :effect-problem="effectProblem"
      @apply="apply"
      @publish="publish"
      @unpublish="unpublish"
    />
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
  dl {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
