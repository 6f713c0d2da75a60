<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import { addressOf } from '#shared/http/endpoint'
import { MOST_WRITTEN } from '#shared/messaging/messages'
import { capital, inWords } from '#core/language'
import type { PresenceActs } from '#shared/voices/presence'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import VoicesTabs from '~/components/voices/VoicesTabs.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { CONTACT_WORDS, sortPresence, type PresenceOrder } from '~/composables/voices/presenceRows'
import { presenceSentence, whosePresence } from '~/composables/voices/presenceSentence'
import { useSeminarStore } from '~/stores/seminar'
import * as voicesEndpoints from '#shared/voices/endpoints'
import PlainButton from '~/components/controls/PlainButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Presence' })
const route = useRoute()
const router = useRouter()
const api = useApi()
const seminar = useSeminarStore()
const { attempt } = useSending()
const { date, dayTime } = useTimes()
const by = computed(() => (typeof route.query.by === 'string' ? route.query.by : ''))
const params = { seminarId: String(route.params.seminarId) }
const { data, error, refresh } = await useAsyncData(
  `presence-${route.params.seminarId}`,
  () => api.call(voicesEndpoints.readPresence, { params, query: { by: by.value } }),
  { watch: [by] },
)
const log = (as: 'csv' | 'pdf') =>
  addressOf(voicesEndpoints.downloadPresenceLog, { params, query: { as, by: by.value } })
const sortBy = ref<PresenceOrder>('gap')
const rows = computed(() => sortPresence(data.value?.students ?? [], sortBy.value))
const limit = computed(() => data.value?.gapLimit ?? 14)
const overdue = computed(() => (data.value?.students ?? []).filter(s => s.gapDays >= limit.value))
const none = computed(() => (data.value?.students ?? []).filter(s => s.acts === 0))
const reached = computed(() => (data.value?.students ?? []).filter(s => s.acts > 0))
const whose = computed(() => (data.value ? whosePresence(data.value) : ''))
const words = computed(() =>
  presenceSentence({
    all: data.value?.students.length ?? 0,
    reached: reached.value.length,
    overdue: overdue.value.length,
    limit: limit.value,
    from: whose.value,
  }),
)
const most = computed(() => Math.max(1, ...(data.value?.students ?? []).flatMap(s => s.weeks)))
const write = (ids: readonly string[]) =>
  `/seminars/${route.params.seminarId}/messages/write?to=${ids.join(',')}`

const open = ref<string | null>(null)
const acts = shallowRef<PresenceActs['acts'] | null>(null)
async function toggle(id: string) {
  open.value = open.value === id ? null : id
  acts.value = null
  if (!open.value) return
  const answer = await attempt(() =>
    api.call(voicesEndpoints.readPresenceActs, { params, query: { student: id, by: by.value } }),
  )
  if (open.value === id) acts.value = answer?.acts ?? null
}
watch(by, () => {
  open.value = null
})
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="presence">
    <header>
      <VoicesTabs />
      <div class="title">
        <h1 class="sentence">
          {{ capital(words[0]) }}<template v-if="overdue.length === 0">{{ words[1] }}</template
          ><em v-else>{{ words[1] }}</em>
        </h1>
        <span class="grow" />
        <label class="pick"
          >from
          <PickList
            class="in"
            aria-label="Whose contact"
            :value="data.by"
            @change="router.replace({ query: { by: ($event.target as HTMLSelectElement).value } })"
          >
            <option v-for="t in data.teachers" :key="t.id" :value="t.id">
              {{ t.isMe ? `${t.name} (you)` : t.name }}
            </option>
            <option v-if="data.teachers.length > 1" value="all">all who teach</option>
          </PickList></label
        >
      </div>
      <div class="acts">
        <NuxtLink
          v-if="overdue.length > 0 && overdue.length <= MOST_WRITTEN && !seminar.shell?.archived"
          class="link"
          :to="write(overdue.map(s => s.id))"
          >Write to
          {{
            overdue.length === 1 ? overdue[0]!.givenName : `these ${inWords(overdue.length)}, one by one`
          }}</NuxtLink
        >
        <span v-if="none.length > 0" class="muted"
          >{{ none.length === 1 ? `${none[0]!.givenName} has` : `${inWords(none.length)} have` }} had nothing
          at all.</span
        >
        <span class="grow" />
        <span class="muted">Record for others:</span>
        <a :href="log('pdf')" download>as PDF</a>
        <a :href="log('csv')" download>as CSV</a>
      </div>
    </header>
    <div v-if="data.students.length > 0" class="scroll">
      <table>
        <caption class="visually-hidden">
          Substantive contact with each student, by week
        </caption>
        <thead>
          <tr>
            <th scope="col" :aria-sort="sortBy === 'name' ? 'ascending' : 'none'">
              <PlainButton @click="sortBy = 'name'">student</PlainButton>
            </th>
            <th
              v-for="w in data.weeks"
              :key="w.number"
              scope="col"
              class="week num"
              :title="`week ${w.number}, from ${date(`${w.firstDay}T12:00:00Z`)}`"
            >
              {{ w.isBreak ? '·' : w.number }}
            </th>
            <th scope="col" class="num" :aria-sort="sortBy === 'acts' ? 'ascending' : 'none'">
              <PlainButton @click="sortBy = 'acts'">in all</PlainButton>
            </th>
            <th scope="col" class="num">last word</th>
            <th scope="col" class="num" :aria-sort="sortBy === 'gap' ? 'descending' : 'none'">
              <PlainButton @click="sortBy = 'gap'">days since</PlainButton>
            </th>
            <th scope="col" class="num">longest gap</th>
            <th scope="col" class="num" title="replies of fewer than 25 words: they do not count">
              short replies
            </th>
          </tr>
        </thead>
        <tbody v-for="s in rows" :key="s.id">
          <tr :class="{ on: open === s.id }" @click="toggle(s.id)">
            <th scope="row">
              <PlainButton :aria-expanded="open === s.id" @click.stop="toggle(s.id)">
                {{ s.name }}</PlainButton><span v-if="s.section" class="muted section">{{ s.section }}</span>
            </th>
            <td v-for="(n, i) in s.weeks" :key="i" class="week num">
              <span :class="{ some: n > 0 }" :style="{ '--tone': `${Math.round(30 + (n / most) * 70)}%` }"
                >{{ n === 0 ? '' : n }}<span v-if="n === 0" class="visually-hidden">none</span></span
              >
            </td>
            <td class="num" :class="{ bad: s.acts === 0 }">{{ s.acts }}</td>
            <td class="num">{{ s.lastAt ? date(s.lastAt) : 'never' }}</td>
            <td class="num" :class="{ bad: s.gapDays >= limit }">{{ s.gapDays }}</td>
            <td class="num" :class="{ was: s.longestGapDays >= limit }">{{ s.longestGapDays }}</td>
            <td class="num">{{ s.nods || '' }}</td>
          </tr>
          <tr v-if="open === s.id" class="log">
            <td :colspan="data.weeks.length + 6">
              <p v-if="!acts" class="muted">looking …</p>
              <p v-else-if="acts.length === 0" class="muted">
                Nothing yet that was said to {{ s.givenName }} alone.
              </p>
              <ol v-else>
                <li v-for="(a, i) in acts" :key="i" :class="{ not: !a.counts }">
                  <span class="num">{{ dayTime(a.at) }}</span><b>{{ CONTACT_WORDS[a.kind] }}</b
                  ><NuxtLink
                    v-if="a.activity"
                    :to="`/seminars/${route.params.seminarId}/activities/${a.activity.id}`"
                    >{{ a.activity.title }}</NuxtLink
                  ><span class="muted">{{ a.why }}{{ data!.by === 'all' ? `, from ${a.by}` : '' }}</span>
                </li>
              </ol>
              <p class="more">
                <NuxtLink :to="`/seminars/${route.params.seminarId}/voices/${s.id}`"
                  >{{ s.givenName }} through the term</NuxtLink
                ><NuxtLink v-if="!seminar.shell?.archived" :to="write([s.id])"
                  >Write to {{ s.givenName }}</NuxtLink
                >
              </p>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else class="invite">
      When students are in, each week’s word to each of them stands here, and whom one has not spoken to for
      long.
    </p>
    <p class="foot">
      What counts: a reply of 25 words or more to what a student wrote, a comment on their work, an answer to
      their question, a letter returned, a message to one student alone. What is said to all counts for
      nobody, nor does what a rule has sent. Gaps are counted from the first day of the term up to now; the
      seminar’s limit is {{ limit }} days.
    </p>
  </main>
</template>

<style scoped>
.presence {
  flex: 1;
  overflow: auto;
}
header {
  padding: 8px 20px 10px;
  border-bottom: 1px solid var(--line);
  display: grid;
  gap: 4px;
}
.title,
.acts {
  display: flex;
  gap: 4px 14px;
  align-items: baseline;
  flex-wrap: wrap;
}
.acts {
  font-size: 0.8125rem;
}
.sentence {
  font: 600 1.0625rem/1.35 var(--read);
}
.sentence em {
  font-style: normal;
  color: var(--brick);
}
.pick {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.pick .in {
  padding: 4px 8px;
  font-size: 0.8125rem;
  max-width: 14rem;
}
.scroll {
  overflow-x: auto;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.8125rem;
}
thead th {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-2);
  text-align: right;
  padding: 7px 8px 5px;
  white-space: nowrap;
}
thead button,
tbody th button {
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
thead [aria-sort='ascending'],
thead [aria-sort='descending'] {
  color: var(--ink);
  font-weight: 650;
}
thead th:first-child,
tbody th {
  text-align: left;
  padding-left: 20px;
  position: sticky;
  left: 0;
  background: var(--sheet);
}
thead .week {
  text-align: center;
}
tbody tr {
  border-top: 1px solid var(--line-soft);
  cursor: pointer;
}
tbody th {
  font-weight: 600;
  white-space: nowrap;
}
tbody th button {
  padding: 5px 0;
  text-align: left;
}
.section {
  font-weight: 400;
  font-size: 0.75rem;
  margin-left: 8px;
}
td {
  text-align: right;
  padding: 3px 8px;
  white-space: nowrap;
}
td.week {
  text-align: center;
  padding: 3px 2px;
  min-width: 30px;
}
td.week > span {
  display: block;
  border-radius: 3px;
  line-height: 20px;
  background: var(--sunken);
  min-height: 20px;
}
td.week > .some {
  background: color-mix(in srgb, var(--harbour) var(--tone), var(--sheet));
  color: var(--on-harbour);
  font-weight: 600;
}
td:last-child,
thead th:last-child {
  padding-right: 20px;
}
.was {
  color: var(--brick);
}
.bad {
  color: var(--brick);
  font-weight: 600;
}
.on,
.on th {
  background: var(--harbour-soft);
}
.log {
  cursor: default;
  background: var(--paper);
}
.log td {
  text-align: left;
  white-space: normal;
  padding: 8px 20px 12px;
}
ol {
  list-style: none;
  display: grid;
  gap: 3px;
}
ol li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
ol b {
  font-weight: 600;
  min-width: 4.5em;
}
.not {
  color: var(--ink-3);
}
.not b {
  font-weight: 400;
}
.more {
  display: flex;
  gap: 18px;
  margin-top: 8px;
}
.foot {
  padding: 10px 20px 24px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  max-width: 110ch;
  line-height: 1.5;
}
.invite {
  padding: 20px;
}
@media (max-width: 760px) {
  header,
  .foot {
    padding-left: 14px;
    padding-right: 14px;
  }
  thead th:first-child,
  tbody th {
    padding-left: 14px;
  }
  .section {
    display: none;
  }
}
</style>
