<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import PickList from '~/components/controls/PickList.vue'
import type { SettingsBody, SettingsView } from '#shared/people/settings'
import EditableRows from '~/components/shell/EditableRows.vue'
import CategorySettings from '~/components/people/settings/CategorySettings.vue'
import GradingSettings from '~/components/people/settings/GradingSettings.vue'
import LoadSettings from '~/components/people/settings/LoadSettings.vue'
import SettingsPart from '~/components/people/settings/SettingsPart.vue'
import SeminarActs from '~/components/people/SeminarActs.vue'
import SeminarEnd from '~/components/people/SeminarEnd.vue'
import TermFields from '~/components/people/TermFields.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import SavedMark from '~/components/shell/SavedMark.vue'
import { numberOf, textOf } from '~/composables/shell/fieldOf'
import { newKey, useApi } from '~/composables/shell/useApi'
import { weeksOf } from '#core/planning/week'
import { timeZones } from '~/composables/planning/termWeeks'
import { useSharedEdit, type Stored } from '~/composables/shell/useSharedEdit'
import { useSeminarStore } from '~/stores/seminar'
import * as peopleEndpoints from '#shared/people/endpoints'
import ClockField from '~/components/controls/ClockField.vue'
import TextButton from '~/components/controls/TextButton.vue'

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
      draftKey: `jovrel:settings:${route.params.seminarId}`,
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
/** Weeks as the plan numbers them: breaks have no number. */
const weeks = computed(() =>
  weeksOf({ ...s.value, weeks: Math.max(1, Math.min(40, s.value.weeks)) }).map(w => ({
    number: w.number,
    words: w.teaching === null ? (w.title ?? 'break') : `week ${w.teaching}`,
  })),
)
const term = computed({
  get: () => ({ firstDay: s.value.firstDay, weeks: s.value.weeks, breaks: s.value.breaks }),
  set: value => edit!.change(value),
})
const zones = ref<string[]>([])
onMounted(() => {
  zones.value = timeZones()
})
const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
function reloadSeminar() {
  void refresh()
  void seminar.load(String(route.params.seminarId))
}
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
      This seminar is closed: it can be read, and nothing is changed until it is reopened.
    </p>
    <section v-if="edit.clashes.value.length > 0" class="clash" role="alert">
      <p v-for="c in edit.clashes.value" :key="c.field">
        Both of you changed <b>{{ c.field }}</b> meanwhile.
        <TextButton @click="edit.settle(c.field, 'mine')">Keep mine</TextButton>{{ ' '
        }}<TextButton @click="edit.settle(c.field, 'theirs')">Use theirs</TextButton>
      </p>
    </section>
    <SettingsPart title="The seminar">
      <div class="grid">
        <label class="lab wide"
          >Title<LineInput class="in" :value="s.title" @input="edit.change({ title: textOf($event) })"
        /></label>
        <label class="lab"
          >Short code<LineInput class="in" :value="s.code" @input="edit.change({ code: textOf($event) })"
        /></label>
        <label class="lab"
          >College<LineInput class="in" :value="s.college" @input="edit.change({ college: textOf($event) })"
        /></label>
      </div>
    </SettingsPart>
    <SettingsPart title="Term">
      <div>
        <TermFields v-model="term" :problems="edit.problems.value" />
        <p class="sentence">
          Work is usually due on
          <PickList
            class="in"
            aria-label="Usual weekday"
            :value="s.usualDueWeekday"
            @change="edit.change({ usualDueWeekday: numberOf($event) })"
          >
            <option v-for="(day, i) in WEEKDAYS" :key="day" :value="i + 1">{{ day }}</option>
          </PickList>
          at
          <ClockField
            label="Usual time"
            :model-value="s.usualDueTime"
            @update:model-value="edit.change({ usualDueTime: $event })"
          />, by the clocks of
          <PickList
            class="in zones"
            aria-label="Time zone"
            :value="s.timeZone"
            @change="edit.change({ timeZone: textOf($event) })"
          >
            <option v-for="zone in [...new Set([s.timeZone, ...zones])]" :key="zone">
              {{ zone }}
            </option></PickList
          >.
        </p>
        <p class="hint">
          Every new due time takes these; they stay at that local time when the clocks change.
        </p>
      </div>
    </SettingsPart>
    <SettingsPart title="Units">
      <EditableRows
        :rows="s.units"
        add="Add a unit"
        empty="Units group weeks under a theme on the term plan."
        :fresh="() => ({ id: newKey(), title: 'New unit', fromWeek: 1, toWeek: Math.min(3, s.weeks) })"
        @change="edit.change({ units: $event })"
      >
        <template #default="{ row, set }">
          <LineInput
            class="in title"
            :value="row.title"
            aria-label="Theme"
            @input="set({ title: textOf($event) })"
          />
          from
          <PickList
            class="in"
            :value="row.fromWeek"
            aria-label="From week"
            @change="set({ fromWeek: numberOf($event) })"
          >
            <option v-for="w in weeks" :key="w.number" :value="w.number">{{ w.words }}</option>
          </PickList>
          to
          <PickList
            class="in"
            :value="row.toWeek"
            aria-label="To week"
            @change="set({ toWeek: numberOf($event) })"
          >
            <option v-for="w in weeks" :key="w.number" :value="w.number">{{ w.words }}</option>
          </PickList>
        </template>
      </EditableRows>
    </SettingsPart>
    <SettingsPart title="Sections">
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
          ><LineInput
            class="in title"
            :value="row.title"
            aria-label="Section"
            @input="set({ title: textOf($event) })"
        /></template>
      </EditableRows>
    </SettingsPart>
    <CategorySettings :settings="s" :marked-in="data?.markedIn ?? []" @change="edit.change" />
    <GradingSettings :settings="s" @change="edit.change" />
    <LoadSettings :settings="s" @change="edit.change" />
    <SeminarActs :seminar-id="String(route.params.seminarId)" :settings="s" />
    <SeminarEnd
      :seminar-id="String(route.params.seminarId)"
      :title="s.title"
      :closed="data.archived"
      @changed="reloadSeminar"
    />
  </main>
</template>

<style scoped>
/* as wide before the browser has listed its zones as after */
.zones {
  width: 13rem;
}
.settings {
  max-width: 980px;
}
.grid {
  display: grid;
  grid-template-columns: 9rem minmax(0, 1fr);
  gap: 12px;
}
.wide {
  grid-column: 1 / -1;
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
.settings :deep(select) {
  max-width: 100%;
}
@media (max-width: 420px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
