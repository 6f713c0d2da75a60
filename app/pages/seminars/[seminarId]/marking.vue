<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { deskOf } from '~/composables/marking/deskOf'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import type { MarkingQueue } from '#shared/marking/desk'
import FillMark from '~/components/marking/FillMark.vue'
import ShareDialog from '~/components/marking/ShareDialog.vue'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { useKeys, type Key } from '~/composables/shell/useKeys'
import { inWords, plural } from '#core/language'
import { kindInSentence } from '~/kinds/words'
import { STANDING_WORDS } from '~/composables/planning/standingWords'
import { useTimes } from '~/composables/planning/useTimes'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import * as markingEndpoints from '#shared/marking/endpoints'
import ChipButton from '~/components/controls/ChipButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Marking' })
const route = useRoute()
const router = useRouter()
const api = useApi()
const notices = useNotices()
const seminar = useSeminarStore()
const { dayTime } = useTimes()
const { data, error, refresh } = await useAsyncData(`queue-${route.params.seminarId}`, () =>
  api.call(markingEndpoints.readMarkingQueue, { params: { seminarId: String(route.params.seminarId) } }),
)
const ORDER = ['ready', 'underWay', 'held', 'returned', 'nothing'] as const
type Activity = MarkingQueue['activities'][number]

// what is shown is in the address, so that going back shows it again
const set = (name: string, value: string | null) =>
  router.replace({ query: { ...route.query, [name]: value ?? undefined } })
const standing = computed(() => ORDER.find(s => s === route.query.standing) ?? null)
const kind = computed(() => ACTIVITY_KINDS.find(k => k === route.query.kind) ?? null)
const mine = computed(() => route.query.share === 'mine')
const kinds = computed(() => [...new Set(data.value?.activities.map(a => a.kind) ?? [])])
const shared = computed(() => data.value?.activities.some(a => a.mine !== null) ?? false)
const counts = (a: Activity) => (mine.value && a.mine ? a.mine : a.counts)
const first = (a: Activity) => (mine.value && a.mine ? a.firstMine : a.firstReady)
const shown = computed(() =>
  (data.value?.activities ?? []).filter(
    a =>
      (!kind.value || a.kind === kind.value) &&
      (!standing.value || counts(a)[standing.value] > 0) &&
      (!mine.value || a.mine !== null),
  ),
)
const desk = (a: Activity, student: string | null) => ({
  path: `/seminars/${route.params.seminarId}/activities/${a.id}/${deskOf(a.kind).path}`,
  query: { ...(student && { student }), ...(mine.value && a.mine && { share: 'mine' }) },
})
/** Whoever is ready next, in whatever activity: those that closed first come first. */
const next = computed(() => shown.value.find(a => first(a)) ?? null)
const ready = computed(() => shown.value.reduce((n, a) => n + counts(a).ready, 0))
const goNext = () => {
  if (next.value) void router.push(desk(next.value, first(next.value)))
}
const sharing = ref<Activity | null>(null)
const sharingOpen = ref(false)
function share(a: Activity) {
  sharing.value = a
  sharingOpen.value = true
}
const keys = computed<Key[]>(() => [
  { keys: 'g Enter', does: 'the next who is ready, anywhere', run: goNext },
])
useKeys(() => keys.value)
function sayAndRefresh(sentence: string) {
  notices.say(sentence)
  void refresh()
}
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else>
    <header>
      <h1>Marking</h1>
      <span class="muted">{{
        ready === 0
          ? 'nobody is ready just now'
          : `${inWords(ready)} ${plural(ready, 'record is', 'records are')} ready`
      }}</span><span class="grow" /><v-btn v-if="next" class="main" @click="goNext"
        >Next ready <KeyHint of="g"
      /></v-btn>
    </header>
    <div v-if="data.activities.length > 0" class="filters" role="group" aria-label="What is shown">
      <ChipButton
        v-for="s in ORDER"
        :key="s"
        :class="{ on: standing === s }"
        :aria-pressed="standing === s"
        @click="set('standing', standing === s ? null : s)"
      >
        {{ STANDING_WORDS[s] }}
      </ChipButton>
      <i />
      <ChipButton
        v-for="k in kinds"
        :key="k"
        :class="{ on: kind === k }"
        :aria-pressed="kind === k"
        @click="set('kind', kind === k ? null : k)"
      >
        {{ kindInSentence(k) }}
      </ChipButton>
      <template v-if="shared"
        ><i /><ChipButton
          :class="{ on: mine }"
          :aria-pressed="mine"
          @click="set('share', mine ? null : 'mine')"
        >
          my share
        </ChipButton></template
      >
    </div>
    <p v-if="data.activities.length === 0" class="empty">
      Nothing is marked in this seminar yet. When an activity with points or a rubric is published it stands
      here, with how many students are ready.
    </p>
    <p v-else-if="shown.length === 0" class="empty">
      Nothing fits these choices.
      <TextButton @click="router.replace({ query: {} })">Show everything</TextButton>
    </p>
    <article v-for="a in shown" :key="a.id">
      <div class="what">
        <KindTag :kind="a.kind" />
        <h2>{{ a.title }}</h2>
        <p class="small muted">
          {{ a.closesAt < (seminar.shell?.now ?? '') ? 'closed' : 'closes' }} {{ dayTime(a.closesAt)
          }}<template v-if="a.mine">
            · {{ mine ? 'your share' : `your share: ${a.mine.ready} ready` }}</template
          >
        </p>
        <p v-if="a.seconds > 0" class="small">
          <NuxtLink :to="desk(a, a.firstSecond)">{{ inWords(a.seconds) }} to mark a second time</NuxtLink>
        </p>
      </div>
      <ul>
        <li v-for="s in ORDER" :key="s" :class="{ none: counts(a)[s] === 0 }">
          <FillMark :standing="s" :named="false" /><b class="num">{{ counts(a)[s] }}</b>
          {{ STANDING_WORDS[s] }}
        </li>
      </ul>
      <div class="acts">
        <v-btn :to="desk(a, first(a))">Open the marking desk</v-btn
        ><TextButton v-if="data.markers.length > 1" class="small" @click="share(a)">
          who marks whom
        </TextButton>
      </div>
    </article>
    <ShareDialog
      v-if="sharing"
      v-model="sharingOpen"
      :activity="sharing"
      :markers="data.markers"
      @done="sayAndRefresh"
    />
  </main>
</template>

<style scoped>
main {
  padding: 20px;
  max-width: 1080px;
  width: 100%;
  margin: 0 auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 14px;
}
h1 {
  font: 600 1.4375rem/1.2 var(--read);
}
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 12px 0 16px;
}
.filters i {
  width: 1px;
  height: 18px;
  background: var(--line);
  margin: 0 6px;
}
.filters .chip {
  padding: 3px 11px;
  font-size: 0.78125rem;
}
article {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 8px 26px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 16px 4px;
}
article:last-of-type {
  border-bottom: 1px solid var(--line);
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
  margin-top: 5px;
}
ul {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  font-size: 0.8125rem;
}
li {
  display: flex;
  gap: 6px;
  align-items: center;
}
.none {
  color: var(--ink-3);
}
.acts {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.empty {
  font: 400 1rem/1.55 var(--read);
  color: var(--ink-2);
}
@media (max-width: 900px) {
  article {
    grid-template-columns: 1fr;
  }
}
</style>
