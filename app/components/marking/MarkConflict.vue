<script setup lang="ts">
import PlainRadio from '~/components/controls/PlainRadio.vue'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView } from '#shared/marking/desk'
import type { MarkText } from '~/composables/marking/markSaving'
import { joinMarks, markDifferences } from '~/composables/marking/markDifferences'

/** Two versions of one mark: what differs, part by part, and what stays of each. */
const props = defineProps<{ mine: MarkView; theirs: MarkView; rubric: RubricView | null }>()
const emit = defineEmits<{ settle: [joined: MarkText | null] }>()
const differences = computed(() => markDifferences(props.mine, props.theirs, props.rubric))
const takeTheirs = reactive(new Set<string>())
const name = computed(() => props.theirs.savedBy ?? 'Somebody else')
function choose(key: string, theirs: boolean) {
  if (theirs) takeTheirs.add(key)
  else takeTheirs.delete(key)
}
function settle() {
  const isAllTheirs = differences.value.every(d => takeTheirs.has(d.key))
  emit('settle', isAllTheirs ? null : joinMarks(props.mine, props.theirs, takeTheirs))
}
</script>

<template>
  <section class="two" role="alertdialog" aria-label="Two versions of this mark">
    <p>
      {{ name }} saved this mark while you were changing it. Nothing was overwritten. Choose what stays, part
      by part.
    </p>
    <p v-if="differences.length === 0">Both say the same.</p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Part</span></th>
          <th scope="col">You, here</th>
          <th scope="col">{{ name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in differences" :key="d.key">
          <th scope="row">{{ d.title }}</th>
          <td
            v-for="isTheirs in [false, true]"
            :key="String(isTheirs)"
            :class="{ stays: takeTheirs.has(d.key) === isTheirs }"
          >
            <label
              ><PlainRadio
                :name="`part-${d.key}`"
                :checked="takeTheirs.has(d.key) === isTheirs"
                :aria-label="`${d.title}: ${isTheirs ? `as ${name} has it` : 'as you have it'}`"
                @change="choose(d.key, isTheirs)"
              />
              <span>{{ isTheirs ? d.theirs : d.mine }}</span></label
            >
          </td>
        </tr>
      </tbody>
    </table>
    <v-btn class="main" @click="settle">Save what is chosen</v-btn>
  </section>
</template>

<style scoped>
.two {
  background: var(--ember-soft);
  padding: 12px 16px 14px;
  font-size: 0.84375rem;
  display: grid;
  gap: 10px;
  justify-items: start;
  max-height: 60vh;
  overflow: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  background: var(--sheet);
  border: 1px solid var(--line);
}
th {
  text-align: left;
  font-weight: 600;
  padding: 6px 10px;
  vertical-align: top;
}
tbody th {
  width: 130px;
}
td {
  border-top: 1px solid var(--line-soft);
  border-left: 1px solid var(--line-soft);
  padding: 6px 10px;
  vertical-align: top;
  color: var(--ink-2);
}
.stays {
  color: var(--ink);
  box-shadow: inset 3px 0 0 var(--harbour);
}
label {
  display: flex;
  gap: 8px;
  align-items: baseline;
  cursor: pointer;
}
label span {
  white-space: pre-line;
  max-height: 10em;
  overflow: auto;
  overflow-wrap: anywhere;
}
</style>
