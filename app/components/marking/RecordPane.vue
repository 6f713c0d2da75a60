<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import type { ActivityView } from '#shared/contributing/activity'
import type { CitationView, RecordItem, RecordView } from '#shared/marking/desk'
import { haveWords, ruleWords } from '#core/planning/expectationWords'
import { capital, inWords, plural } from '#core/language'
import { deskItemOf } from '#core/marking/deskItem'
import type { CombineRule } from '#core/marking/combineMarks'
import { measuresOf } from '~/composables/marking/measures'
import type { HiddenNames } from '~/composables/marking/useHiddenNames'
import { useTimes } from '~/composables/planning/useTimes'
import AttachmentList from '../contributing/AttachmentList.vue'
import RevisionList from '../contributing/RevisionList.vue'
import MarkOne from './MarkOne.vue'
import PageChanges from './PageChanges.vue'
import RecordLine from './RecordLine.vue'
import type { RecordPiece } from './recordPiece'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

const props = defineProps<{
  record: RecordView
  activity: ActivityView
  names: HiddenNames
  combine: CombineRule | null
}>()
const emit = defineEmits<{
  cite: []
  mark: [contributionId: string, mark: { points: number | null; done: boolean | null }]
}>()
const { day, date, time, dayTime } = useTimes()
const summary = computed(() => props.record.summary)
const shownRevisions = ref<string | null>(null)
const measuring = ref(false)
const measures = computed(() => (measuring.value ? measuresOf(props.record) : []))
const called = computed(() => props.names.nameOf(props.record.student))
const { hide } = props.names

/** Paragraphs cut where citations begin and end; offsets are into the contribution's plain text. */
function pieces(item: RecordItem): RecordPiece[][] {
  const cited = props.record.mark.citations
    .map((c, i) => ({ ...c, number: i + 1 }))
    .filter(c => c.contributionId === item.id)
    .map(c => ({ ...c, start: offsetOf(item, c) }))
    .filter(c => c.start >= 0)
  let at = 0
  return item.text.split('\n').map(line => {
    const from = at
    at += line.length + 1
    const cuts = [
      ...new Set(
        [0, line.length, ...cited.flatMap(c => [c.start - from, c.start + c.exact.length - from])].filter(
          x => x >= 0 && x <= line.length,
        ),
      ),
    ].sort((a, b) => a - b)
    return cuts.slice(1).map((to, i) => {
      const start = cuts[i]!
      const on = cited.filter(c => c.start - from <= start && c.start + c.exact.length - from >= to)
      const text = line.slice(start, to)
      return {
        text,
        names: props.names.pieces(text),
        numbers: on.map(c => c.number),
        ends: on.filter(c => c.start + c.exact.length - from === to).map(c => c.number),
      }
    })
  })
}
/** Where a citation stands now: at its hint, else the nearest place with the same words. */
const offsetOf = (item: RecordItem, c: CitationView) =>
  item.text.startsWith(c.exact, c.start) ? c.start : item.text.indexOf(c.exact)
/** How long it is: its own words, and those of the documents and papers that came with it. */
function wordsOf({ words, fileWords, files }: RecordItem): string {
  if (fileWords === 0) return words === 0 && files.length > 0 ? 'no words beside its files' : `${words} words`
  const inFiles = `${fileWords} ${plural(fileWords, 'word')} in ${files.length === 1 ? 'its file' : 'its files'}`
  return words === 0 ? inFiles : `${words} words and ${inFiles}`
}
const NOTE_WORDS = { note: 'Note', question: 'Question', link: 'Link' } as const
const heading = (item: RecordItem): string => {
  const on = deskItemOf(item, props.activity.kind)
  switch (on.is) {
    case 'version':
      return `${on.page}, version ${on.number}`
    case 'pageComment':
      return `Comment on ${on.page}`
    case 'note':
      return `${NOTE_WORDS[on.kind]}, ${on.where}${on.isSet ? '' : ', beside what is set'}`
    case 'term':
      return `Term: ${on.title}`
    case 'review':
      return `Review of ${hide(on.of)}’s work`
    case 'reviewOfTeammate':
      return 'Review of a teammate'
    case 'work':
      return 'Handed in'
    case 'answer':
      return on.word === 'reply' ? `Reply to ${hide(on.to)}` : `${capital(on.word)} on ${hide(on.to)}’s text`
    case 'entry':
      return [
        capital(on.word),
        item.prompt && ` to prompt ${item.prompt.number}`,
        on.title && `: ${hide(on.title)}`,
      ]
        .filter(Boolean)
        .join('')
  }
}
const checkWords = computed(() =>
  props.activity.expectations.map((e, i) => ({
    words: ruleWords(e.rule, props.activity.kind),
    check: props.record.checks[i]!,
    have: haveWords(e.rule, props.record.checks[i]!),
  })),
)
const before = computed(() => {
  const i = props.activity.expectations.findIndex(e => e.rule.kind === 'entries')
  const check = props.record.checks[i]
  return check?.metAt
    ? {
        late: check.late,
        due: day(props.record.dues[i]!).split(' ')[0],
        at: `${day(check.metAt).split(' ')[0]} ${time(check.metAt)}`,
      }
    : null
})
const counted = (n: number, one: string) => `${n} ${plural(n, one)}`
const sentence = computed(() => {
  const { contributions, words, classmates, days } = summary.value
  return [
    counted(contributions, 'contribution'),
    `${words} words`,
    counted(classmates, 'classmate'),
    `over ${counted(days, 'day')}`,
  ].join(' · ')
})
</script>

<template>
  <section class="record" aria-label="Record">
    <header>
      <p class="who">
        <b>{{ called }}</b><span class="small muted num">{{ sentence }}</span
        ><TextButton class="small" :aria-expanded="measuring" @click="measuring = !measuring">
          {{ measuring ? 'fold the measures' : 'measures' }}
        </TextButton>
      </p>
      <dl v-if="measuring" class="measures num">
        <template v-for="m in measures" :key="m.name"
          ><dt>{{ m.name }}</dt>
          <dd>{{ m.value }}</dd></template
        >
      </dl>
      <ul class="expect">
        <li v-for="c in checkWords" :key="c.check.expectationId" :class="{ no: !c.check.met }">
          {{ c.check.met ? '✓' : '✗' }} {{ c.words }} <b class="num">{{ c.have }}</b>
        </li>
        <li v-if="before" :class="{ no: before.late }">
          {{ before.late ? '✗' : '✓' }} due {{ before.due }}, in <b>{{ before.at }}</b>
        </li>
      </ul>
      <p v-if="record.extended" class="ext">
        Extended to {{ dayTime(record.dueAt) }}: {{ record.extended }}.
      </p>
    </header>
    <div class="items">
      <template v-for="item in record.items" :key="item.id">
        <div v-if="item.answers" class="item ctx">
          <p class="meta">
            {{ hide(item.answers.name) }} wrote<template v-if="item.answers.passage">
              on “{{ hide(item.answers.passage) }}”</template
            >
          </p>
          <p>{{ hide(item.answers.text) }}</p>
        </div>
        <div v-if="item.prompt" class="item ctx">
          <p class="meta">Prompt {{ item.prompt.number }}</p>
          <p>{{ item.prompt.text }}</p>
        </div>
        <article :id="`r-${item.id}`" class="item" tabindex="-1" :data-contribution="item.id">
          <PlainButton class="pick" @click="emit('cite')">cite <KeyHint of="e" /></PlainButton>
          <p class="meta">
            <b>{{ heading(item) }}</b> · {{ day(item.shownAt) }}, {{ time(item.shownAt) }} ·
            <template v-if="item.change"
              ><span class="plus">+{{ item.change.added }}</span
              >{{ ' ' }}<span class="minus">−{{ item.change.removed }}</span> words</template
            ><template v-else>{{ wordsOf(item) }}</template
            ><template v-if="item.about">
              · {{ item.about.actedOn ? `acted on in version ${item.about.actedOn}` : 'open' }}</template
            ><template v-if="item.withdrawn"> · withdrawn</template
            ><template v-if="item.revisions > 0">
              ·
              <TextButton
                :aria-expanded="shownRevisions === item.id"
                @click="shownRevisions = shownRevisions === item.id ? null : item.id"
              >
                {{
                  shownRevisions === item.id
                    ? 'fold the earlier text'
                    : `changed ${inWords(item.revisions)} ${plural(item.revisions, 'time')}`
                }}
              </TextButton></template
            >
          </p>
          <RevisionList v-if="shownRevisions === item.id" :contribution-id="item.id" />
          <p v-if="item.change?.summary" class="summary">{{ hide(item.change.summary) }}</p>
          <p v-if="item.noted?.exact" class="noted">
            … {{ hide(item.noted.before) }}<mark>{{ hide(item.noted.exact) }}</mark
            >{{ hide(item.noted.after) }} …<template v-if="item.noted.lost">
              <b>no longer in the text</b></template
            >
          </p>
          <p v-if="item.noted?.to" class="passage">→ “{{ hide(item.noted.to) }}”</p>
          <p v-if="item.about?.passage" class="passage">on “{{ hide(item.about.passage) }}”</p>
          <PageChanges v-if="item.change" :change="item.change" :pieces="pieces(item)" :hide="hide" />
          <p v-for="(line, n) in item.change ? [] : pieces(item)" :key="n" class="line" data-line>
            <RecordLine :pieces="line" />
          </p>
          <AttachmentList
            v-if="item.files.length > 0"
            :files="names.hideFiles(item.files)"
            html=""
            may-transcribe
          />
          <MarkOne
            v-if="combine && !item.withdrawn"
            :combine="combine"
            :mark="item.mark"
            @mark="emit('mark', item.id, $event)"
          />
        </article>
        <div v-for="(a, n) in item.answered" :key="`${item.id}-${n}`" class="item ctx">
          <p class="meta">{{ hide(a.name) }} answered</p>
          <p>{{ hide(a.text) }}</p>
        </div>
      </template>
      <p v-if="record.items.length === 0" class="empty">
        {{ names.givenOf(record.student) }} has nothing here yet. A mark can still be set.
      </p>
      <p v-for="d in record.draftsBegun" :key="d.savedAt" class="draft">
        A draft of {{ inWords(d.words) }} words was begun, last touched {{ date(d.savedAt) }}. Its words are
        {{ names.givenOf(record.student) }}’s own until posted.
      </p>
      <slot name="after" />
    </div>
  </section>
</template>

<style scoped>
.record {
  background: var(--sheet);
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
header {
  padding: 13px 24px 9px;
  border-bottom: 1px solid var(--line-soft);
}
.who {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.who b {
  font-size: 0.9375rem;
  font-weight: 600;
}
.expect {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  margin-top: 7px;
}
.expect b {
  color: var(--ink);
  font-weight: 600;
}
.no,
.no b {
  color: var(--brick);
}
.measures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 2px 18px;
  font-size: 0.78125rem;
  margin: 8px 0 2px;
  color: var(--ink-2);
}
.measures dt {
  grid-row: auto;
}
.measures dd {
  margin: 0;
  color: var(--ink);
  font-weight: 600;
}
.ext {
  font-size: 0.78125rem;
  color: var(--ink-2);
  margin-top: 5px;
}
.items {
  overflow-y: auto;
  padding: 0 24px 30px;
  flex: 1;
  min-height: 0;
}
.item {
  padding: 14px 0 13px 16px;
  border-left: 2px solid var(--line-soft);
  position: relative;
  margin-left: 4px;
  outline: none;
}
.item:focus {
  box-shadow: none;
}
.item::before {
  content: '';
  position: absolute;
  left: -6px;
  top: 20px;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  background: var(--k-discussion);
  border: 2px solid var(--sheet);
}
.ctx {
  padding: 8px 0 8px 16px;
}
.ctx::before {
  background: var(--spine);
  top: 13px;
}
.meta {
  font-size: 0.78125rem;
  color: var(--ink-3);
  margin-bottom: 4px;
  padding-right: 50px;
}
.meta b {
  color: var(--ink);
  font-weight: 600;
}
.summary {
  font: italic 400 0.875rem/1.45 var(--read);
  color: var(--ink-2);
}
.noted {
  font: 400 0.84375rem/1.45 var(--read);
  color: var(--ink-3);
  margin-bottom: 4px;
}
.noted mark {
  background: none;
  color: var(--ink-2);
  border-bottom: 2px solid var(--k-reading);
}
.passage {
  font: italic 400 0.84375rem/1.4 var(--read);
  color: var(--ink-2);
}
.plus {
  color: var(--moss);
  font-weight: 600;
}
.minus {
  color: var(--brick);
  font-weight: 600;
}
.line {
  font: 400 0.96875rem/1.58 var(--read);
}
.line + .line {
  margin-top: 0.55em;
}
.ctx p:not(.meta) {
  font: 400 0.84375rem/1.45 var(--read);
  color: var(--ink-3);
}
.pick {
  position: absolute;
  right: 0;
  top: 11px;
  font-size: 0.75rem;
  color: var(--ink-3);
  background: none;
  border: 0;
  cursor: pointer;
}
.empty,
.draft {
  font: 400 0.9375rem/1.5 var(--read);
  color: var(--ink-2);
  padding: 18px 0 0;
}
</style>
