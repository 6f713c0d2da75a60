<script setup lang="ts">
import { capital, inWords, plural } from '#core/language'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'
import ColumnPanel from '~/components/marking/gradebook/ColumnPanel.vue'
import GradebookHead from '~/components/marking/gradebook/GradebookHead.vue'
import GradebookLegend from '~/components/marking/gradebook/GradebookLegend.vue'
import GradebookSheets from '~/components/marking/gradebook/GradebookSheets.vue'
import { isPrinting } from '~/composables/shell/printing'
import GradeGrid from '~/components/marking/gradebook/GradeGrid.vue'
import type { CellPosition } from '~/composables/marking/gridKeys'
import MarksIn from '~/components/marking/gradebook/MarksIn.vue'
import TypePoints from '~/components/marking/gradebook/TypePoints.vue'
import WhereFrom from '~/components/marking/gradebook/WhereFrom.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { columnsInOrder, isShown, type GradeFilter } from '~/composables/marking/gradebookLayout'
import { points } from '~/composables/marking/points'
import { COLUMN_WIDTHS, useColumnWidth, useFoldedPanel } from '~/composables/marking/useGridColumns'
import { useGradebookActs } from '~/composables/marking/useGradebookActs'
import PickList from '~/components/controls/PickList.vue'
import TextButton from '~/components/controls/TextButton.vue'
import { useApi } from '~/composables/shell/useApi'
import { useNotices } from '~/stores/notices'

/** Every mark of a seminar, student by student: where it comes from, changed in place, returned by column. */
definePageMeta({ layout: 'seminar' })
useHead({ title: 'Gradebook' })
const route = useRoute()
const api = useApi()
const notices = useNotices()
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
const { busy, problem, setPoints, excuse, returnHeld } = useGradebookActs(book, refresh)

// -- who and what is shown
const filter = ref<GradeFilter>({ words: '', sectionId: '', groupId: '', standing: '' })
const hidden = ref<readonly string[]>(book.value?.hidden ?? [])
const order = ref<readonly string[]>(book.value?.order ?? [])
watch(book, b => {
  hidden.value = b?.hidden ?? []
  order.value = b?.order ?? []
})
const columns = computed(() => (book.value ? columnsInOrder(book.value, order.value, hidden.value) : []))
const rows = computed(() =>
  (book.value?.rows ?? []).filter(r => isShown(r, filter.value, book.value!.grading.passPercent)),
)

// -- the cell or column one is at
const at = ref<CellPosition | null>(null)
const head = ref<number | null>(null)
const row = computed(() => (at.value ? (rows.value[at.value.row] ?? null) : null))
const typing = ref<{ readonly initial: string; readonly selects: boolean } | null>(null)
const reason = ref('') // stays from one student to the next
const typed = computed(() => {
  if (!typing.value || !at.value || !row.value || at.value.column < 0) return null
  return { ...typing.value, row: row.value, column: book.value!.columns[at.value.column]! }
})
function stopTyping() {
  typing.value = null
}
watch(filter, () => {
  at.value = null
  stopTyping()
})
function go(cell: CellPosition) {
  stopTyping()
  head.value = null
  problem.value = null
  at.value = cell
}
function selectHead(index: number) {
  at.value = null
  head.value = index >= 0 ? index : null
}
function mayType({ row: r, column }: CellPosition) {
  const { mayEdit, columns: all } = book.value!
  return column >= 0 && mayEdit && all[column]!.max > 0 && !'.x'.includes(rows.value[r]!.counts[column]!)
}
function edit(cell: CellPosition, first: string | null) {
  if (!mayType(cell)) return
  go(cell)
  const before = rows.value[cell.row]!.points[cell.column]
  const initial = before == null ? '' : points(before)
  typing.value = { initial: first ?? initial, selects: first === null }
}
async function set(hundredths: number | null) {
  const cell = at.value!
  if (!(await setPoints(row.value!, cell.column, hundredths, reason.value.trim()))) return
  stopTyping()
  at.value = { row: Math.min(rows.value.length - 1, cell.row + 1), column: cell.column }
}

// -- how columns are laid out, for this reader
const width = useColumnWidth()
const folded = useFoldedPanel()
const isPanelShown = computed(() => !folded.value || typed.value !== null)
function arrange(nextOrder: readonly string[], nextHidden: readonly string[]) {
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
function move(from: number, to: number) {
  const { id } = book.value!.columns[from]!
  const list = columns.value.map(i => book.value!.columns[i]!.id).filter(x => x !== id)
  list.splice(columns.value.indexOf(to), 0, id)
  arrange(list, hidden.value)
}
function shift(by: number) {
  const to = columns.value[columns.value.indexOf(head.value!) + by]
  if (to !== undefined) move(head.value!, to)
}
function hide() {
  const { id, title } = book.value!.columns[head.value!]!
  arrange(order.value, [...hidden.value, id])
  head.value = null
  const show = () =>
    arrange(
      order.value,
      hidden.value.filter(x => x !== id),
    )
  notices.say(`${title} is hidden.`, { label: 'Show it', run: show })
}
const importing = ref(false)
function sayImported(marks: number) {
  notices.say(
    marks === 0
      ? 'Nothing was changed.'
      : `${capital(inWords(marks))} ${plural(marks, 'mark')} imported, held until you return them.`,
  )
  void refresh()
}
</script>

<template>
  <ProblemPage v-if="error || !book" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="book">
    <GradebookHead
      v-model="filter"
      :book="book"
      :seminar-id="seminarId"
      :hidden="hidden.length"
      @show-hidden="arrange(order, [])"
      @import="importing = true"
    />
    <p v-if="book.columns.length === 0" class="empty">
      Nothing is graded yet. When an activity with points or a rubric is published it gets a column here.
      Weights are set in <NuxtLink :to="`${base}/settings`">the settings</NuxtLink>.
    </p>
    <p v-else-if="book.rows.length === 0" class="empty">
      Nobody to grade yet: no students are in this seminar.
    </p>
    <div v-else class="panes" :class="{ folded: !isPanelShown }">
      <GradebookSheets v-if="isPrinting" :book="book" :rows="rows" :columns="columns" />
      <GradeGrid
        class="no-print"
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
      <aside class="no-print" aria-label="Beside the gradebook">
        <p class="fold">
          <label v-if="isPanelShown"
            >Columns
            <PickList v-model="width" class="in">
              <option v-for="(_, name) in COLUMN_WIDTHS" :key="name" :value="name">{{ name }}</option>
            </PickList></label
          ><TextButton :aria-expanded="isPanelShown" @click="folded = !folded">{{
            isPanelShown ? 'Fold' : 'Unfold'
          }}</TextButton>
        </p>
        <template v-if="isPanelShown">
          <TypePoints
            v-if="typed"
            :key="`${typed.row.enrolmentId}:${typed.column.id}`"
            v-model:reason="reason"
            :row="typed.row"
            :column="typed.column"
            :initial="typed.initial"
            :selects="typed.selects"
            :busy="busy"
            :problem="problem"
            @set="set"
            @away="stopTyping"
          />
          <WhereFrom
            v-else-if="row && at"
            :key="`${row.enrolmentId}:${at.column}`"
            :book="book"
            :row="row"
            :column="at.column"
            :busy="busy"
            :problem="problem"
            :desk-path="`${base}/activities`"
            @set="(hundredths, why) => setPoints(row!, at!.column, hundredths, why)"
            @excuse="(excused, why) => excuse(row!, at!.column, excused, why)"
          />
          <ColumnPanel
            v-else-if="head !== null"
            :book="book"
            :column="head"
            :busy="busy"
            :first="columns[0] === head"
            :last="columns.at(-1) === head"
            :base="base"
            @return-held="returnHeld(book.columns[head]!.id, $event)"
            @move="shift"
            @hide="hide"
          />
          <GradebookLegend v-else :grading="book.grading" :settings-to="`${base}/settings`" />
        </template>
      </aside>
    </div>
    <MarksIn v-model="importing" :seminar-id="seminarId" :columns="book.columns" @done="sayImported" />
  </main>
</template>

<style scoped>
.book {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.panes {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
}
/* the panel folded to its edge */
.folded {
  grid-template-columns: minmax(0, 1fr) 72px;
}
.fold {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 7px 12px;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.fold .in {
  padding: 2px 6px;
  font-size: inherit;
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
@media (max-width: 1000px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(260px, 1fr) auto;
  }
  .folded {
    grid-template-columns: minmax(0, 1fr);
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
