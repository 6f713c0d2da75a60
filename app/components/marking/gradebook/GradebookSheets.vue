<script setup lang="ts">
import { listName } from '#core/people/names'
import type { Gradebook, GradeRow } from '#shared/marking/gradebook'
import { cellWords, letterWords, shareWords } from '~/composables/marking/gradeWords'

/** The gradebook on paper: as many tables as its columns take, each with the students and their final. */
const props = defineProps<{ book: Gradebook; rows: readonly GradeRow[]; columns: readonly number[] }>()
const ACROSS = 8 // columns of a table that can be read on a sheet
const tables = computed(() => {
  const parts: number[][] = []
  for (let from = 0; from < props.columns.length || from === 0; from += ACROSS)
    parts.push(props.columns.slice(from, from + ACROSS))
  return parts
})
const finalOf = (row: GradeRow) =>
  [shareWords(row.share), letterWords(row.share, props.book.bands)].filter(Boolean).join(' ')
</script>

<template>
  <div class="sheets">
    <table v-for="(part, n) in tables" :key="n">
      <caption>
        Gradebook<template v-if="tables.length > 1">, table {{ n + 1 }} of {{ tables.length }}</template>
      </caption>
      <thead>
        <tr>
          <th scope="col">Student</th>
          <th scope="col" class="num">Final</th>
          <th v-for="i in part" :key="i" scope="col" class="num">{{ book.columns[i]!.title }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.enrolmentId">
          <th scope="row">{{ listName(row) }}</th>
          <td class="num">{{ finalOf(row) }}</td>
          <td v-for="i in part" :key="i" class="num">{{ cellWords(row, i, book.columns[i]!) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.sheets {
  display: none;
}
@media print {
  .sheets {
    display: block;
  }
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 8.5pt;
}
table + table {
  break-before: page;
}
caption {
  text-align: left;
  font-weight: 600;
  padding-bottom: 6px;
}
th,
td {
  border: 0.5pt solid #999;
  padding: 2pt 4pt;
  text-align: left;
  vertical-align: bottom;
  font-weight: 400;
}
thead th {
  font-weight: 600;
}
tbody th,
tbody td {
  white-space: nowrap;
}
.num {
  text-align: right;
}
</style>
