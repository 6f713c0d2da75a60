<script setup lang="ts">
import type { SettingsBody, SettingsView } from '#shared/people/settings'
import EditableRows from '~/components/shell/EditableRows.vue'
import SeminarActs from '~/components/people/SeminarActs.vue'
import TermFields from '~/components/people/TermFields.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import SavedMark from '~/components/shell/SavedMark.vue'
import { newKey, useApi } from '~/composables/shell/useApi'
import { timeZones } from '~/composables/planning/termWeeks'
import { useSharedEdit, type Stored } from '~/composables/shell/useSharedEdit'
import { useSeminarStore } from '~/stores/seminar'
import * as peopleEndpoints from '#shared/people/endpoints'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Settings' })
const route = useRoute()
const params = { seminarId: String(route.params.seminarId) }
const api = useApi()
const seminar = useSeminarStore()
const { data, error, refresh } = await useAsyncData(`settings-${route.params.seminarId}`, () =>
  api.call(peopleEndpoints.readSettings, { params }),
)
const toStored = (view: SettingsView): Stored<SettingsBody> => ({
  version: view.version,
  body: view.settings,
  savedBy: null,
})
const edit = data.value
  ? useSharedEdit<SettingsBody>({
      stored: toStored(data.value),
      auto: () => !data.value?.archived,
      shelf: `jovrel:settings:${route.params.seminarId}`,
      theirsOf: theirs => toStored(theirs as SettingsView),
      send: async (change, baseVersion) => {
        const saved = toStored(
          await api.call(peopleEndpoints.saveSettings, {
            params,
            body: {
              key: newKey(),
              baseVersion,
              settings: { ...edit!.base.value, ...change },
            },
          }),
        )
        void seminar.load(route.params.seminarId as string)
        return saved
      },
    })
  : null
const s = computed(() => edit!.mine.value)
const term = computed({
  get: () => ({ firstDay: s.value.firstDay, weeks: s.value.weeks, breaks: s.value.breaks }),
  set: value => edit!.change(value),
})
const zones = ref<string[]>([])
onMounted(() => {
  zones.value = timeZones()
})
const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const weights = computed(() => s.value.categories.reduce((sum, c) => sum + c.weightPercent, 0))
const number = (event: Event) => Number((event.target as HTMLInputElement).value) || 0
const text = (event: Event) => (event.target as HTMLInputElement).value
const grade = (part: Partial<SettingsBody['grading']>) =>
  edit!.change({ grading: { ...s.value.grading, ...part } })
const bandText = (bands: SettingsBody['scales'][number]['bands']) =>
  bands.map(b => `${b.letter} ${b.fromPercent}`).join(', ')
function bands(event: Event, i: number) {
  const parsed = text(event)
    .split(',')
    .map(part => /^\s*(.+?)\s+(\d+(?:\.\d+)?)\s*%?\s*$/.exec(part))
    .filter(m => m !== null)
    .map(m => ({ letter: m[1]!, fromPercent: Number(m[2]) }))
  edit!.change({ scales: s.value.scales.map((scale, j) => (j === i ? { ...scale, bands: parsed } : scale)) })
}
function reloadSeminar() {
  void refresh()
  void seminar.load(String(route.params.seminarId))
}
const weightsSentence = computed(() => {
  if (weights.value === 100) return '.'
  if (weights.value < 100)
    return `; ${100 - weights.value} % are not given yet. Final marks are reckoned as if these made up the whole.`
  return `, ${weights.value - 100} % more than a whole. Final marks are reckoned by their proportion.`
})
</script>

<template>
  <ProblemPage v-if="error || !edit || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="leaf settings">
    <div class="leaf-head">
      <h1>Settings</h1>
      <span class="grow" /><SavedMark
        :state="edit.state.value"
        :problem="edit.problem.value"
        :joined="edit.joined.value"
        @retry="edit.save()"
      />
    </div>
    <p v-if="data.archived" class="archived">
      This seminar is archived: it can be read, and nothing is changed until it is brought back.
    </p>
    <section v-if="edit.clashes.value.length > 0" class="clash" role="alert">
      <p v-for="c in edit.clashes.value" :key="c.field">
        Both of you changed <b>{{ c.field }}</b> meanwhile.
        <button class="link" type="button" @click="edit.settle(c.field, 'mine')">Keep mine</button>{{ ' '
        }}<button class="link" type="button" @click="edit.settle(c.field, 'theirs')">Take theirs</button>
      </p>
    </section>
    <section>
      <h2>The seminar</h2>
      <div class="grid">
        <label class="lab wide"
          >Title<input class="in" :value="s.title" @input="edit.change({ title: text($event) })"
        /></label>
        <label class="lab"
          >Short code<input class="in" :value="s.code" @input="edit.change({ code: text($event) })"
        /></label>
        <label class="lab"
          >College<input class="in" :value="s.college" @input="edit.change({ college: text($event) })"
        /></label>
      </div>
    </section>
    <section>
      <h2>Term</h2>
      <div>
        <TermFields v-model="term" :problems="edit.problems.value" />
        <p class="sentence">
          Work is usually due on
          <select
            class="in"
            aria-label="Usual weekday"
            :value="s.usualDueWeekday"
            @change="edit.change({ usualDueWeekday: number($event) })"
          >
            <option v-for="(day, i) in WEEKDAYS" :key="day" :value="i + 1">{{ day }}</option>
          </select>
          at
          <input
            class="in"
            type="time"
            aria-label="Usual time"
            :value="s.usualDueTime"
            @change="edit.change({ usualDueTime: text($event) })"
          />, by the clocks of
          <select
            class="in"
            aria-label="Time zone"
            :value="s.timeZone"
            @change="edit.change({ timeZone: text($event) })"
          >
            <option v-for="zone in [...new Set([s.timeZone, ...zones])]" :key="zone">
              {{ zone }}
            </option></select
          >.
        </p>
        <p class="hint">
          Every new due time takes these; they stay at that local time when the clocks change.
        </p>
      </div>
    </section>
    <section>
      <h2>Units</h2>
      <EditableRows
        :rows="s.units"
        add="Add a unit"
        empty="Units group weeks under a theme on the term plan."
        :fresh="() => ({ id: newKey(), title: 'New unit', fromWeek: 1, toWeek: Math.min(3, s.weeks) })"
        @change="edit.change({ units: $event })"
      >
        <template #default="{ row, set }">
          <input
            class="in title"
            :value="row.title"
            aria-label="Theme"
            @input="set({ title: text($event) })"
          />
          weeks
          <input
            class="in short"
            type="number"
            min="1"
            :max="s.weeks"
            :value="row.fromWeek"
            aria-label="From week"
            @input="set({ fromWeek: number($event) })"
          />
          to
          <input
            class="in short"
            type="number"
            min="1"
            :max="s.weeks"
            :value="row.toWeek"
            aria-label="To week"
            @input="set({ toWeek: number($event) })"
          />
        </template>
      </EditableRows>
    </section>
    <section>
      <h2>Sections</h2>
      <EditableRows
        :rows="s.sections"
        add="Add a section"
        empty="Sections are parts of the class, such as two meeting times."
        :fresh="
          () => ({
            id: newKey(),
            title: `Section ${'ABCDEFGHIJ'[s.sections.length] ?? s.sections.length + 1}`,
          })
        "
        @change="edit.change({ sections: $event })"
      >
        <template #default="{ row, set }"
          ><input
            class="in title"
            :value="row.title"
            aria-label="Section"
            @input="set({ title: text($event) })"
        /></template>
      </EditableRows>
    </section>
    <section>
      <h2>Categories</h2>
      <div>
        <EditableRows
          :rows="s.categories"
          add="Add a category"
          empty="Categories say how much each sort of work counts."
          :fresh="
            () => ({
              id: newKey(),
              title: 'New category',
              weightPercent: Math.max(0, 100 - weights),
              dropLowest: 0,
            })
          "
          @change="edit.change({ categories: $event })"
        >
          <template #default="{ row, set }"
            ><input
              class="in title"
              :value="row.title"
              aria-label="Category"
              @input="set({ title: text($event) })" />{{ ' '
            }}<input
              class="in short"
              type="number"
              min="0"
              max="100"
              :value="row.weightPercent"
              aria-label="Weight in percent"
              @input="set({ weightPercent: number($event) })" />
            %
            <label class="drop"
              >without the lowest
              <input
                class="in short"
                type="number"
                min="0"
                max="20"
                :value="row.dropLowest"
                :aria-label="`How many of the lowest of ${row.title} are left out`"
                @input="set({ dropLowest: number($event) })" /></label
          ></template>
        </EditableRows>
        <p v-if="s.categories.length > 0" class="sum" :class="{ off: weights !== 100 }">
          Together {{ weights }} %{{ weightsSentence }}
        </p>
      </div>
    </section>
    <section>
      <h2>Gradebook</h2>
      <div>
        <p class="sentence">
          Work that is missing when it closes
          <select
            class="in"
            :value="String(s.grading.missingIsZero)"
            aria-label="Missing work"
            @change="grade({ missingIsZero: text($event) === 'true' })"
          >
            <option value="true">counts as zero</option>
            <option value="false">is left out</option></select
          >. Your figures
          <select
            class="in"
            :value="String(s.grading.countHeld)"
            aria-label="Held marks"
            @change="grade({ countHeld: text($event) === 'true' })"
          >
            <option value="false">count what is returned</option>
            <option value="true">count held marks, too</option></select
          >.
        </p>
        <p class="sentence">
          Students
          <select
            class="in"
            :value="String(s.grading.showTotal)"
            aria-label="Final figure for students"
            @change="grade({ showTotal: text($event) === 'true' })"
          >
            <option value="true">see their final figure as it stands</option>
            <option value="false">see single marks only</option></select
          >, with
          <select
            class="in"
            :value="s.grading.gradingScaleId ?? ''"
            aria-label="Letters of the final figure"
            @change="grade({ gradingScaleId: text($event) || null })"
          >
            <option value="">no letters</option>
            <option v-for="scale in s.scales" :key="scale.id" :value="scale.id">
              letters of {{ scale.title }}
            </option></select
          >. One passes from
          <input
            class="in short"
            type="number"
            min="0"
            max="100"
            :value="s.grading.passPercent ?? ''"
            aria-label="Pass mark in percent; empty for none"
            @input="grade({ passPercent: text($event) === '' ? null : number($event) })"
          />
          %.
        </p>
      </div>
    </section>
    <section>
      <h2>Grading scales</h2>
      <EditableRows
        :rows="s.scales"
        add="Add a scale"
        empty="A scale turns percent into letters or words."
        :fresh="
          () => ({
            id: newKey(),
            title: 'New scale',
            bands: [
              { letter: 'Pass', fromPercent: 50 },
              { letter: 'Not yet', fromPercent: 0 },
            ],
          })
        "
        @change="edit.change({ scales: $event })"
      >
        <template #default="{ row, set, index }"
          ><input
            class="in title"
            :value="row.title"
            aria-label="Scale"
            @input="set({ title: text($event) })" /><input
            class="in bands"
            :value="bandText(row.bands)"
            aria-label="Letters with the percent each begins at, highest first"
            @change="bands($event, index)"
        /></template>
      </EditableRows>
    </section>
    <section>
      <h2>Load and presence</h2>
      <div>
        <p class="sentence">
          The plan reckons with reading at
          <input
            class="in short"
            type="number"
            min="50"
            max="1000"
            :value="s.pace.readingWordsPerMinute"
            aria-label="Words read a minute"
            @input="edit.change({ pace: { ...s.pace, readingWordsPerMinute: number($event) } })"
          />
          words a minute, writing at
          <input
            class="in short"
            type="number"
            min="1"
            max="100"
            :value="s.pace.writingWordsPerMinute"
            aria-label="Words written a minute"
            @input="edit.change({ pace: { ...s.pace, writingWordsPerMinute: number($event) } })"
          />, and marking for
          <input
            class="in short"
            type="number"
            min="0"
            max="120"
            :value="s.pace.markingMinutesPerStudent"
            aria-label="Minutes of marking a student"
            @input="edit.change({ pace: { ...s.pace, markingMinutesPerStudent: number($event) } })"
          />
          minutes a student besides reading.
        </p>
        <p class="sentence">
          It says so when a week asks more than
          <input
            class="in short"
            type="number"
            min="1"
            max="60"
            :value="s.studentHoursLimit"
            aria-label="Hours of students"
            @input="edit.change({ studentHoursLimit: number($event) })"
          />
          hours of students or
          <input
            class="in short"
            type="number"
            min="1"
            max="60"
            :value="s.markingHoursLimit"
            aria-label="Hours of marking"
            @input="edit.change({ markingHoursLimit: number($event) })"
          />
          of you.
        </p>
        <p class="sentence">
          A student without a word from you for
          <input
            class="in short"
            type="number"
            min="1"
            max="120"
            :value="s.presenceGapDays"
            aria-label="Days without a word"
            @input="edit.change({ presenceGapDays: number($event) })"
          />
          days is pointed out.
        </p>
      </div>
    </section>
    <SeminarActs
      :seminar-id="String(route.params.seminarId)"
      :settings="s"
      :archived="data.archived"
      @changed="reloadSeminar"
    />
  </main>
</template>

<style scoped>
.settings {
  max-width: 980px;
}
section {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 8px 26px;
  padding: 18px 0;
  border-top: 1px solid var(--line);
}
h2 {
  font: 600 1rem/1.4 var(--read);
}
.grid {
  display: grid;
  grid-template-columns: 9rem 1fr;
  gap: 12px;
}
.wide {
  grid-column: 1 / -1;
}
.sentence {
  font: 400 1rem/2.1 var(--read);
  margin-top: 6px;
}
.sentence .in,
:deep(.row .in) {
  font: 600 0.9375rem/1.3 var(--read);
  color: var(--harbour-deep);
  padding: 3px 7px;
}
.title {
  width: 14rem;
}
.bands {
  flex: 1;
  min-width: 12rem;
}
.drop {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--ink-2);
  margin-left: 10px;
}
.sum {
  font-size: 0.84375rem;
  color: var(--moss);
  margin-top: 6px;
}
.sum.off {
  color: var(--ember);
}
.archived {
  padding: 10px 14px;
  background: var(--ember-soft);
  border-radius: var(--r);
  margin-bottom: 12px;
}
.clash {
  display: block;
  background: var(--brick-soft);
  padding: 10px 14px;
  border-radius: var(--r);
  border: 0;
}
@media (max-width: 700px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
