<script setup lang="ts">
import { addressOf } from '#shared/http/endpoint'
import type { GradeRow } from '#shared/marking/gradebook'
import ColumnPanel from '~/components/marking/gradebook/ColumnPanel.vue'
import GradeGrid, { type Place } from '~/components/marking/gradebook/GradeGrid.vue'
import MarksIn from '~/components/marking/gradebook/MarksIn.vue'
import WhereFrom from '~/components/marking/gradebook/WhereFrom.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { percentOf } from '#core/marking/gradebook/gradebook'
import { stateOf } from '~/composables/marking/gradeWords'
import { capital, inWords, plural } from '#core/language'
import { points } from '~/composables/marking/points'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'
import * as markingEndpoints from '#shared/marking/endpoints'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Gradebook' })
const route = useRoute()
const api = useApi()
const notices = useNotices()
const { busy, problem, send } = useSending()
const seminarId = String(route.params.seminarId)
const base = `/seminars/${seminarId}`
const {
  data: book,
  error,
  refresh,
} = await useAsyncData(
  `gradebook-${seminarId}`,
  () => api.call(gradebookEndpoints.readGradebook, { params: { seminarId } }),
  { deep: false },
)

const words = ref('')
const section = ref('')
const group = ref('')
const standing = ref('')
const hidden = ref<readonly string[]>(book.value?.hidden ?? [])
const order = ref<readonly string[]>(book.value?.order ?? [])
watch(book, b => {
  hidden.value = b?.hidden ?? []
  order.value = b?.order ?? []
})
/** Columns as laid out: by the reader's order where there is one, new ones at the end; else by category. */
const columns = computed(() => {
  const b = book.value
  if (!b) return []
  const byCategory = new Map(b.categories.map((c, i) => [c.id, i]))
  const place = (i: number) => {
    const at = order.value.indexOf(b.columns[i]!.id)
    return at >= 0
      ? at
      : order.value.length + (byCategory.get(b.columns[i]!.categoryId ?? '') ?? 99) + i / 1000
  }
  return b.columns
    .map((_, i) => i)
    .filter(i => !hidden.value.includes(b.columns[i]!.id))
    .sort((a, c) => place(a) - place(c))
})
const STANDINGS = [
  ['', 'everyone'],
  ['held', 'something held'],
  ['missing', 'something missing'],
  ['ready', 'work not marked'],
  ['below', 'below the pass mark'],
] as const
const rows = computed(() =>
  (book.value?.rows ?? []).filter(r => {
    const b = book.value!
    if (words.value.trim() && !r.name.toLowerCase().includes(words.value.trim().toLowerCase())) return false
    if (section.value && r.sectionId !== section.value) return false
    if (group.value && !r.groupIds.includes(group.value)) return false
    switch (standing.value) {
      case 'held':
        return r.states.includes('h')
      case 'missing':
        return r.counts.includes('m')
      case 'ready':
        return r.states.includes('w')
      case 'below':
        return (
          r.share !== null && b.grading.passPercent !== null && percentOf(r.share) < b.grading.passPercent
        )
      default:
        return true
    }
  }),
)
const at = ref<Place | null>(null)
const head = ref<number | null>(null)
const row = computed(() => (at.value ? (rows.value[at.value.row] ?? null) : null))
const typing = reactive({ open: false, text: '', reason: '' })
const typed = ref<HTMLInputElement | null>(null)
const editing = computed(() =>
  typing.open && at.value !== null && at.value.column >= 0 ? book.value!.columns[at.value.column]! : null,
)
watch(
  () => [words.value, section.value, group.value, standing.value],
  () => {
    at.value = null
    typing.open = false
  },
)
function go(place: Place) {
  typing.open = false
  head.value = null
  problem.value = null
  at.value = place
}
function edit(place: Place, first: string | null) {
  const b = book.value!
  if (
    place.column < 0 ||
    !b.mayEdit ||
    b.columns[place.column]!.max <= 0 ||
    '.x'.includes(rows.value[place.row]!.counts[place.column]!)
  )
    return
  head.value = null
  at.value = place
  problem.value = null
  const before = rows.value[place.row]!.points[place.column]
  Object.assign(typing, {
    open: true,
    text: first ?? (before == null ? '' : points(before)),
    reason: typing.reason,
  })
  void nextTick(() => {
    typed.value?.focus()
    if (first === null) typed.value?.select()
  })
}
function take(next: GradeRow) {
  const b = book.value!
  book.value = { ...b, rows: b.rows.map(r => (r.enrolmentId === next.enrolmentId ? next : r)) }
}
async function write(
  r: GradeRow,
  column: number,
  hundredths: number | null,
  reason: string,
): Promise<boolean> {
  const c = book.value!.columns[column]!
  const was = r.points[column] ?? null
  const wasSet = r.set[column] === '1'
  const next = await send(() =>
    api.call(gradebookEndpoints.setPoints, {
      params: { activityId: c.id, enrolmentId: r.enrolmentId },
      body: {
        key: newKey(),
        was,
        points: hundredths,
        reason,
      },
    }),
  )
  if (!next) return false
  take(next)
  const held = stateOf(next, column) === 'held'
  notices.say(
    `${r.givenName}: ${hundredths === null ? 'back to what was reckoned' : points(hundredths)} for ${c.title}.${held ? ' Held until you return it.' : ''}`,
    {
      label: 'Undo',
      run: async () => {
        const now = book.value!.rows.find(x => x.enrolmentId === r.enrolmentId)!
        take(
          await api.call(gradebookEndpoints.setPoints, {
            params: { activityId: c.id, enrolmentId: r.enrolmentId },
            body: {
              key: newKey(),
              was: now.points[column] ?? null,
              points: wasSet ? was : null,
              reason: wasSet ? 'Undone.' : '',
            },
          }),
        )
      },
    },
  )
  return true
}
async function set() {
  const c = editing.value
  if (!c || !row.value || !at.value) return
  const n = typing.text.trim() === '' ? null : Math.round(Number(typing.text.replace(',', '.')) * 100)
  if (n !== null && !Number.isFinite(n)) {
    problem.value = 'Write the points as a number.'
    return
  }
  const place = at.value
  if (!(await write(row.value, place.column, n, typing.reason.trim()))) return
  typing.open = false
  at.value = { row: Math.min(rows.value.length - 1, place.row + 1), column: place.column }
}
async function excuse(excused: boolean, reason: string) {
  const c = book.value!.columns[at.value!.column]!
  const r = row.value!
  const next = await send(() =>
    api.call(gradebookEndpoints.excuseStudent, {
      params: { activityId: c.id, enrolmentId: r.enrolmentId },
      body: { key: newKey(), excused, reason },
    }),
  )
  if (!next) return
  take(next)
  notices.say(
    excused ? `${r.givenName} is excused from ${c.title}.` : `${c.title} counts for ${r.givenName} again.`,
    excused
      ? {
          label: 'Undo',
          run: async () =>
            take(
              await api.call(gradebookEndpoints.excuseStudent, {
                params: { activityId: c.id, enrolmentId: r.enrolmentId },
                body: { key: newKey(), excused: false, reason: '' },
              }),
            ),
        }
      : undefined,
  )
}
async function returnHeld(ids: string[]) {
  const c = book.value!.columns[head.value!]!
  const answer = await send(() =>
    api.call(markingEndpoints.returnMarks, {
      params: { activityId: c.id },
      body: { key: newKey(), enrolmentIds: ids },
    }),
  )
  if (!answer) {
    if (problem.value) notices.warn(new Error(problem.value))
    return
  }
  notices.say(`Returned to ${inWords(answer.returned)} ${plural(answer.returned, 'student')}.`)
  await refresh()
}
function lay(nextOrder: readonly string[], nextHidden: readonly string[]) {
  const before = { order: [...order.value], hidden: [...hidden.value] }
  order.value = nextOrder
  hidden.value = nextHidden
  void api
    .call(gradebookEndpoints.arrangeGradebook, {
      params: { seminarId },
      body: { order: nextOrder, hidden: nextHidden },
    })
    .catch((e: unknown) => {
      order.value = before.order
      hidden.value = before.hidden
      notices.warn(e)
    })
}
const ids = () => columns.value.map(i => book.value!.columns[i]!.id)
function move(from: number, to: number) {
  const list = ids().filter(id => id !== book.value!.columns[from]!.id)
  const target = columns.value.indexOf(to)
  list.splice(target, 0, book.value!.columns[from]!.id)
  lay(list, hidden.value)
}
function shift(by: number) {
  const place = columns.value.indexOf(head.value!)
  const to = columns.value[place + by]
  if (to !== undefined) move(head.value!, to)
}
function hide() {
  const c = book.value!.columns[head.value!]!
  lay(order.value, [...hidden.value, c.id])
  head.value = null
  notices.say(`${c.title} is hidden.`, {
    label: 'Show it',
    run: () =>
      lay(
        order.value,
        hidden.value.filter(id => id !== c.id),
      ),
  })
}
const FORMS = [
  ['csv', 'CSV'],
  ['xlsx', 'XLSX'],
  ['oneroster', 'OneRoster 1.2 CSV'],
  ['pdf', 'letters as one PDF'],
  ['zip', 'letters as a zip'],
] as const
const marksIn = ref(false)
function selectHead(index: number) {
  at.value = null
  head.value = index >= 0 ? index : null
}
function sayImported(marks: number) {
  notices.say(
    marks === 0
      ? 'Nothing was changed.'
      : `${capital(inWords(marks))} ${plural(marks, 'mark')} taken in, held until you return them.`,
  )
  void refresh()
}
</script>

<template>
  <ProblemPage v-if="error || !book" :sentence="error?.message ?? ''" @retry="refresh()" />
  <div v-else class="book">
    <header>
      <h1>Gradebook</h1>
      <input v-model="words" class="in find" type="search" placeholder="a name" aria-label="Find a student" />
      <select v-if="book.sections.length > 0" v-model="section" class="in" aria-label="Section">
        <option value="">all sections</option>
        <option v-for="s in book.sections" :key="s.id" :value="s.id">{{ s.title }}</option>
      </select>
      <select v-if="book.groups.length > 0" v-model="group" class="in" aria-label="Group">
        <option value="">all groups</option>
        <option v-for="g in book.groups" :key="g.id" :value="g.id">{{ g.plan }}: {{ g.title }}</option>
      </select>
      <select v-model="standing" class="in" aria-label="Who is shown">
        <option v-for="[value, label] in STANDINGS" :key="value" :value="value">{{ label }}</option>
      </select>
      <span class="grow" />
      <button v-if="hidden.length > 0" class="link small" type="button" @click="lay(order, [])">
        show {{ inWords(hidden.length) }} hidden
      </button>
      <v-btn v-if="book.mayEdit" :to="`/seminars/${seminarId}/outcomes`">Outcomes</v-btn>
      <v-btn v-if="book.mayEdit" @click="marksIn = true">Take marks in</v-btn>
      <v-menu location="bottom end"
        ><template #activator="{ props }"><v-btn v-bind="props">Take results away</v-btn></template>
        <div class="card forms">
          <a
            v-for="[form, label] in FORMS"
            :key="form"
            :href="addressOf(gradebookEndpoints.downloadResults, { params: { seminarId }, query: { form } })"
            download
            >{{ label }}</a><span class="hint">only what is returned is in them</span>
        </div></v-menu
      >
    </header>
    <p v-if="book.columns.length === 0" class="empty">
      Nothing is graded yet. When an activity with points or a rubric is published it gets a column here.
      Weights are set in <NuxtLink :to="`${base}/settings`">the settings</NuxtLink>.
    </p>
    <p v-else-if="book.rows.length === 0" class="empty">
      Nobody to grade yet: no students are in this seminar.
    </p>
    <div v-else class="panes">
      <GradeGrid
        :book="book"
        :rows="rows"
        :columns="columns"
        :at="at"
        @at="go"
        @edit="edit"
        @head="selectHead"
        @move="move"
      >
        <p v-if="rows.length === 0" class="empty">Nobody fits these choices.</p>
      </GradeGrid>
      <aside aria-label="Beside the gradebook">
        <form
          v-if="editing && row"
          class="typing"
          @submit.prevent="set"
          @keydown.esc.prevent="typing.open = false"
        >
          <p>
            <b>{{ row.name }}</b><br /><span class="muted">{{ editing.title }}</span>
          </p>
          <label class="lab"
            >Points, of {{ points(editing.max)
            }}<input ref="typed" v-model="typing.text" class="in" inputmode="decimal"
          /></label>
          <label class="lab"
            >Why<input
              v-model="typing.reason"
              class="in"
              maxlength="500"
              :placeholder="editing.byHand ? 'if you like' : 'kept with the mark'"
          /></label>
          <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
          <p class="acts">
            <v-btn class="main" type="submit" :disabled="busy">Set and go down <kbd>↵</kbd></v-btn
            ><v-btn class="quiet" @click="typing.open = false">Leave it</v-btn>
          </p>
        </form>
        <WhereFrom
          v-else-if="row && at"
          :key="`${row.enrolmentId}:${at.column}`"
          :book="book"
          :row="row"
          :column="at.column"
          :busy="busy"
          :problem="problem"
          :desk-path="`${base}/activities`"
          @set="(p, why) => write(row!, at!.column, p, why)"
          @excuse="excuse"
        />
        <ColumnPanel
          v-else-if="head !== null"
          :book="book"
          :column="head"
          :busy="busy"
          :first="columns[0] === head"
          :last="columns.at(-1) === head"
          :base="base"
          @return-held="returnHeld"
          @move="shift"
          @hide="hide"
        />
        <div v-else class="about">
          <p>
            Choose a figure and it says where it comes from. Arrows go from cell to cell; <kbd>↵</kbd> or a
            digit changes a mark.
          </p>
          <dl>
            <dt class="cell held">17</dt>
            <dd>held, not seen by the student</dd>
            <dt class="cell open">17</dt>
            <dd>on the desk, not held yet</dd>
            <dt class="cell work">&nbsp;</dt>
            <dd>work is in, not marked</dd>
            <dt class="cell missing">0</dt>
            <dd>missing since its close</dd>
            <dt class="cell dropped">9</dt>
            <dd>left out as one of the lowest</dd>
            <dt class="cell set">17</dt>
            <dd>set by hand</dd>
          </dl>
          <p class="hint">
            {{
              book.grading.countHeld ? 'Figures count held marks, too.' : 'Figures count what is returned.'
            }}
            {{
              book.grading.missingIsZero
                ? 'What is missing at its close counts as zero.'
                : 'What is missing is left out.'
            }}
            <NuxtLink :to="`${base}/settings`">Change this</NuxtLink>
          </p>
        </div>
      </aside>
    </div>
    <MarksIn v-model="marksIn" :seminar-id="seminarId" :columns="book.columns" @done="sayImported" />
  </div>
</template>

<style scoped>
.book {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
header {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  padding: 9px 20px;
  border-bottom: 1px solid var(--line);
}
h1 {
  font: 600 1.1875rem/1.2 var(--read);
  margin-right: 8px;
}
.find {
  width: 9em;
}
header .in {
  font-size: 0.8125rem;
  padding: 4px 8px;
  max-width: 13em;
}
.panes {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
}
aside {
  border-left: 1px solid var(--line);
  overflow-y: auto;
}
.empty {
  padding: 40px 20px;
  font: 400 1rem/1.5 var(--read);
  color: var(--ink-2);
}
.forms {
  padding: 10px 14px;
  display: grid;
  gap: 8px;
}
.forms a {
  color: var(--ink);
}
.typing,
.about {
  padding: 16px 20px;
  display: grid;
  gap: 12px;
  font-size: 0.8125rem;
  line-height: 1.5;
}
.acts {
  display: flex;
  gap: 8px;
}
.about dl {
  display: grid;
  grid-template-columns: 46px 1fr;
  gap: 6px 12px;
  align-items: center;
  margin: 0;
}
.about dd {
  margin: 0;
  color: var(--ink-2);
}
.cell {
  text-align: right;
  padding: 2px 8px;
  background: var(--sheet);
  border: 1px solid var(--line-soft);
  font-weight: 500;
}
.held {
  box-shadow: inset 4px 0 0 -1px var(--harbour);
}
.open {
  color: var(--ink-3);
  font-style: italic;
}
.work {
  background: linear-gradient(to top, var(--ember-soft) 3px, var(--sheet) 3px);
}
.missing {
  color: var(--brick);
}
.dropped {
  color: var(--ink-3);
  text-decoration: line-through;
}
.set {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
@media (max-width: 1000px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(260px, 1fr) auto;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
