<script setup lang="ts">
import { tablesIn } from '#core/kinds/wiki/tablesIn'
import type { AuthorView } from '#shared/contributing/thread'
import type { AuthoredBlock } from '~/workers/pages.worker'
import AuthoredRuns from './AuthoredRuns.vue'
import PageBlock from './PageBlock.vue'

/** A page with every word under its writer, a table cell by cell. */
const props = defineProps<{
  blocks: readonly AuthoredBlock[]
  authorOf: (origin: string) => AuthorView | null
  members: readonly AuthorView[]
  /** The one whose words alone are shaded. */ only?: string | null
}>()
const parts = computed(() => tablesIn(props.blocks))
const runs = computed(() => ({ authorOf: props.authorOf, members: props.members, only: props.only }))
/** Containers within the cell alone: the cell is drawn by the table. */
const within = (block: AuthoredBlock) => block.path.slice(block.path.indexOf('table') + CELL_DEPTH)
const CELL_DEPTH = 3 // table, row, cell
</script>

<template>
  <div class="authored">
    <template v-for="(part, i) in parts" :key="i">
      <PageBlock v-if="part.kind === 'block'" :node="part.block.node" :path="part.block.path">
        <AuthoredRuns :block="part.block" v-bind="runs" />
      </PageBlock>
      <div v-else class="wide">
        <table>
          <tbody>
            <tr v-for="(row, r) in part.rows" :key="r">
              <component :is="cell.isHeader ? 'th' : 'td'" v-for="(cell, c) in row" :key="c">
                <PageBlock v-for="(b, n) in cell.blocks" :key="n" :node="b.node" :path="within(b)">
                  <AuthoredRuns :block="b" v-bind="runs" />
                </PageBlock>
              </component>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
</template>

<style scoped>
.authored {
  display: grid;
  gap: 0.7em;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  border: 1px solid var(--line);
  padding: 4px 8px;
  text-align: start;
  vertical-align: top;
  min-width: 4rem;
}
th {
  background: var(--sunken);
}
table :deep(.block) {
  font: 400 0.875rem/1.45 var(--ui);
}
th :deep(.block) {
  font-weight: 600;
}
</style>
