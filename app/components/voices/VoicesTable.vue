<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import CheckBox from '~/components/controls/CheckBox.vue'
import { MOST_WRITTEN } from '#shared/messaging/messages'
import type { VoiceView, VoicesView } from '#shared/voices/voices'
import { MEASURES } from '~/composables/voices/measures'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Everyone with all measures, sortable; the middle is folded, and whoever said nothing stays in sight. */
const props = defineProps<{ view: VoicesView; chosen: string | null; table: string; mayWrite: boolean }>()
const emit = defineEmits<{ choose: [id: string | null]; write: [ids: readonly string[]] }>()
const TOP = 8
// whom one would write to: the silent until somebody is ticked
const ticked = ref<Set<string> | null>(null)
const picked = computed(
  () => ticked.value ?? new Set(props.view.people.filter(p => p.contributions === 0).map(p => p.id)),
)
function tick(id: string) {
  const next = new Set(picked.value)
  if (!next.delete(id)) next.add(id)
  ticked.value = next
}
const writeWords = computed(() => {
  const people = props.view.people.filter(p => picked.value.has(p.id))
  if (people.length === 1) return `Write to ${people[0]!.givenName}`
  return people.every(p => p.contributions === 0)
    ? `Write to the ${people.length} who have not spoken`
    : `Write to ${people.length}`
})
watch(
  () => props.view.people.length,
  () => {
    ticked.value = null
  },
)
const [by, falling] = [ref('words'), ref(true)]
const keepSilent = ref(true)
const open = ref(false)
const measure = computed(() => MEASURES.find(m => m.key === by.value)!)
function sort(key: string) {
  if (by.value === key) {
    falling.value = !falling.value
    return
  }
  by.value = key
  falling.value = key !== 'name' && !MEASURES.find(m => m.key === key)?.risingFirst
}
const sorted = computed(() => {
  const names = new Intl.Collator('en')
  const byName = (a: VoiceView, b: VoiceView) =>
    names.compare(a.familyName, b.familyName) || names.compare(a.givenName, b.givenName)
  const sign = falling.value ? -1 : 1
  if (by.value === 'name') return [...props.view.people].sort((a, b) => sign * byName(a, b))
  // what is not known stands last, whichever way one sorts
  return [...props.view.people].sort((a, b) => {
    const [x, y] = [measure.value.of(a), measure.value.of(b)]
    return x === null || y === null
      ? Number(x === null) - Number(y === null) || byName(a, b)
      : sign * (x - y) || byName(a, b)
  })
})
const silent = computed(() => sorted.value.filter(p => p.contributions === 0))
const speaking = computed(() =>
  keepSilent.value ? sorted.value.filter(p => p.contributions > 0) : sorted.value,
)
// whoever is chosen stays in sight, also where the others are folded
const shown = computed(() =>
  open.value || speaking.value.length <= TOP + 2
    ? speaking.value
    : speaking.value.filter((p, i) => i < TOP || p.id === props.chosen),
)
const folded = computed(() => speaking.value.length - shown.value.length)
const most = computed(() => Math.max(1, ...props.view.people.map(p => p.words)))
const change = (p: VoiceView) => {
  const d = p.words - p.before.words
  return p.before.contributions === 0 && p.contributions === 0
    ? ''
    : `${d >= 0 ? '+' : '−'}${Math.abs(d).toLocaleString('en')}`
}
const hasBefore = computed(() => props.view.people.some(p => p.before.contributions > 0))
const columns = computed(
  () => MEASURES.length + 1 + Number(hasBefore.value) + Number(props.view.activity !== null),
)
const nameSort = computed(() => {
  if (by.value === 'name') return falling.value ? 'descending' : 'ascending'
  return 'none'
})
function sortOf(m: { readonly key: string }) {
  if (by.value === m.key) return falling.value ? 'descending' : 'ascending'
  return 'none'
}
</script>

<template>
  <section aria-label="Everyone">
    <div class="head">
      <h2>Everyone</h2>
      <CheckBox v-model="keepSilent">keep the silent in sight</CheckBox><span class="grow" /><a
        class="link"
        :href="table"
        download
        >Export as a table</a
      ><v-btn
        v-if="mayWrite && picked.size > 0"
        class="main"
        :disabled="picked.size > MOST_WRITTEN"
        @click="emit('write', [...picked])"
        >{{ picked.size > MOST_WRITTEN ? `Choose up to ${MOST_WRITTEN} to write to` : writeWords }}</v-btn
      >
    </div>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col" :aria-sort="nameSort">
              <PlainButton @click="sort('name')">
                student<span v-if="by === 'name'" aria-hidden="true">{{ falling ? ' ↓' : ' ↑' }}</span>
              </PlainButton>
            </th>
            <template v-for="m in MEASURES" :key="m.key">
              <th scope="col" :aria-sort="sortOf(m)">
                <PlainButton :title="m.explained" @click="sort(m.key)">
                  {{ m.label }}<span v-if="by === m.key" aria-hidden="true">{{ falling ? ' ↓' : ' ↑' }}</span>
                </PlainButton>
              </th>
              <th v-if="m.key === 'words' && hasBefore" scope="col" title="words against the weeks before">
                against before
              </th>
            </template>
            <th v-if="view.activity" scope="col">expectations met</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="p in shown"
            :key="p.id"
            :class="{ on: p.id === chosen, none: p.contributions === 0 }"
            @click="emit('choose', p.id === chosen ? null : p.id)"
          >
            <th scope="row">
              <PlainCheckbox
                v-if="mayWrite"
                :checked="picked.has(p.id)"
                :aria-label="`Write to ${p.name}`"
                @click.stop
                @change="tick(p.id)"
              /><PlainButton
                :aria-pressed="p.id === chosen"
                @click.stop="emit('choose', p.id === chosen ? null : p.id)"
              >
                {{ p.name }}</PlainButton
              ><NuxtLink
                class="term"
                :to="`/seminars/${$route.params.seminarId}/voices/${p.id}`"
                :aria-label="`${p.name} through the term`"
                @click.stop
                >term</NuxtLink
              >
            </th>
            <template v-for="m in MEASURES" :key="m.key">
              <td class="num">
                <i
                  v-if="m.key === 'words'"
                  class="bar"
                  :style="{ width: `${Math.round((p.words / most) * 58)}px` }"
                  aria-hidden="true"
                />{{ m.show(p) }}
              </td>
              <td v-if="m.key === 'words' && hasBefore" class="num">{{ change(p) }}</td>
            </template>
            <td v-if="view.activity" class="num">{{ p.met }} of {{ p.asked }}</td>
          </tr>
          <tr v-if="folded > 0 || open" class="fold">
            <td :colspan="columns">
              <template v-if="folded > 0"
                >{{ folded }} more <TextButton @click="open = true">unfold</TextButton></template
              ><TextButton v-else @click="open = false">fold</TextButton>
            </td>
          </tr>
          <template v-if="keepSilent">
            <tr
              v-for="p in silent"
              :key="p.id"
              class="none"
              :class="{ on: p.id === chosen }"
              @click="emit('choose', p.id === chosen ? null : p.id)"
            >
              <th scope="row">
                <PlainCheckbox
                  v-if="mayWrite"
                  :checked="picked.has(p.id)"
                  :aria-label="`Write to ${p.name}`"
                  @click.stop
                  @change="tick(p.id)"
                /><PlainButton
                  :aria-pressed="p.id === chosen"
                  @click.stop="emit('choose', p.id === chosen ? null : p.id)"
                >
                  {{ p.name }}</PlainButton
                ><NuxtLink
                  class="term"
                  :to="`/seminars/${$route.params.seminarId}/voices/${p.id}`"
                  :aria-label="`${p.name} through the term`"
                  @click.stop
                  >term</NuxtLink
                >
              </th>
              <td class="num">0</td>
              <td class="num">0</td>
              <td :colspan="columns - 3 - Number(view.activity !== null)" class="why">{{ p.quiet }}</td>
              <td v-if="view.activity" class="num">{{ p.met }} of {{ p.asked }}</td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
section {
  background: var(--sheet);
  border-top: 1px solid var(--line);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  padding: 10px 20px 6px;
  font-size: 0.78125rem;
  color: var(--ink-2);
}
h2 {
  font: 600 0.84375rem/1.4 var(--ui);
  color: var(--ink);
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.8125rem;
}
thead th {
  font-weight: 500;
  text-align: right;
  padding: 3px 10px;
  color: var(--ink-2);
  font-size: 0.75rem;
  vertical-align: bottom;
}
thead th:first-child,
tbody th {
  text-align: left;
  padding-left: 20px;
  position: sticky;
  left: 0;
  background: var(--sheet);
  z-index: 1;
}
thead button {
  background: none;
  border: 0;
  padding: 2px 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
  text-align: inherit;
}
thead [aria-sort='ascending'],
thead [aria-sort='descending'] {
  color: var(--ink);
  font-weight: 650;
}
tbody tr {
  border-top: 1px solid var(--line-soft);
  cursor: pointer;
  content-visibility: auto;
}
tbody th {
  font-weight: 600;
  white-space: nowrap;
}
tbody th button {
  background: none;
  border: 0;
  padding: 4px 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
  text-align: left;
}
tbody th input {
  margin-right: 9px;
  vertical-align: -1px;
}
.term {
  font: 400 0.75rem/1 var(--ui);
  margin-left: 10px;
  opacity: 0;
}
tr:hover .term,
.on .term,
.term:focus-visible {
  opacity: 1;
}
td {
  text-align: right;
  padding: 3px 10px;
  white-space: nowrap;
}
td:last-child,
thead th:last-child {
  padding-right: 20px;
}
.bar {
  display: inline-block;
  height: 6px;
  background: color-mix(in srgb, var(--k-discussion) 45%, var(--sheet));
  margin-right: 8px;
  vertical-align: 1px;
  border-radius: 1px;
}
.on,
.on th {
  background: var(--harbour-soft);
}
.none th,
.none .num {
  color: var(--brick);
}
.why {
  text-align: left;
  font: italic 400 0.84375rem/1.4 var(--read);
  color: var(--ink-2);
}
.fold {
  cursor: default;
}
.fold td {
  text-align: left;
  padding-left: 20px;
  background: var(--paper);
  color: var(--ink-2);
}
</style>
