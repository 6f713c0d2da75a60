<script setup lang="ts">
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { PeerNames } from '~/composables/marking/usePeerNames'
import { usePeersStore } from '~/stores/peers'

/** Reviewing as work: who reviewed how much, in time, how helpful it was found, and how close it was to the others. */
const props = defineProps<{ names: PeerNames; percent: number }>()
const open = defineModel<boolean>({ required: true })
const store = usePeersStore()
const mean = (values: readonly number[]) =>
  values.length === 0 ? null : values.reduce((a, b) => a + b, 0) / values.length
const rows = computed(() =>
  props.names
    .inOrder(store.view?.people ?? [], p => p.id)
    .map(p => ({ id: p.id, name: props.names.nameOf(p.id), ...store.reviewing(p.id) }))
    .filter(r => r.owed > 0)
    .map(r => ({
      id: r.id,
      name: r.name,
      done: `${r.done} of ${r.owed}`,
      isShort: r.done < r.owed,
      onTime: r.done === 0 ? '–' : `${r.onTime} of ${r.done}`,
      helpful: mean(r.helpful)?.toFixed(1) ?? '–',
      off: mean(r.distances)?.toFixed(1) ?? '–',
      share: r.share === null ? '–' : `${Math.round(r.share * 100)} %`,
    })),
)
const countsWords = computed(() =>
  props.percent > 0
    ? `What it comes to is ${props.percent} % of each one’s own mark.`
    : 'It counts for nothing: in the plan, it can be made a share of the mark.',
)
</script>

<template>
  <ModalDialog v-model="open" max-width="760" aria-label="Reviewing, person by person">
    <div class="card dialog">
      <h2>Reviewing, person by person</h2>
      <p class="muted">
        Helpful is the mean of what authors said, from 1 to 5; off is how far scores lie from the others’, in
        levels. {{ countsWords }}
      </p>
      <p v-if="rows.length === 0" class="invite">Nobody has been asked to review anything yet.</p>
      <div v-else class="scroll">
        <table class="num">
          <thead>
            <tr>
              <th>Reviewer</th>
              <th>done</th>
              <th>in time</th>
              <th>helpful</th>
              <th>off</th>
              <th>comes to</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows" :key="r.id">
              <th scope="row">{{ r.name }}</th>
              <td :class="{ short: r.isShort }">{{ r.done }}</td>
              <td>{{ r.onTime }}</td>
              <td>{{ r.helpful }}</td>
              <td>{{ r.off }}</td>
              <td>
                <b>{{ r.share }}</b>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="acts"><v-btn class="main" @click="open = false">Close</v-btn></p>
    </div>
  </ModalDialog>
</template>

<style scoped>
.scroll {
  overflow: auto;
  max-height: 60vh;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.875rem;
}
th,
td {
  text-align: right;
  padding: 6px 10px;
  border-bottom: 1px solid var(--line-soft);
  white-space: nowrap;
}
th:first-child {
  text-align: left;
}
thead th {
  font: 400 0.75rem/1.3 var(--ui);
  color: var(--ink-3);
}
tbody th {
  font-weight: 600;
}
.short {
  color: var(--ember);
}
.acts {
  display: flex;
  justify-content: flex-end;
}
</style>
