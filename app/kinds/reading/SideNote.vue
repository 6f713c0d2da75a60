<script setup lang="ts">
import type { WholeContribution } from '#shared/contributing/thread'
import type { MarginNote } from '~/kinds/reading/useMargin'
import { clock } from '~/composables/files/clock'
import { inWords, plural } from '#core/language'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import ProseText from '~/components/contributing/ProseText.vue'
import RevisionList from '~/components/contributing/RevisionList.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

const EditBox = defineAsyncComponent(() => import('~/components/contributing/EditBox.vue'))
const WriteBox = defineAsyncComponent(() => import('~/components/contributing/WriteBox.vue'))
/** A note beside its words, as printed marginalia stand: who, what, and the answers under it. */
const props = defineProps<{
  note: MarginNote
  letter: string | null
  desk: TalkDesk
  open: boolean
  lit: boolean
  /** Words of the passage a link leads to. */ target: string | null
  targetPage: string | null
}>()
const emit = defineEmits<{
  toggle: []
  follow: []
  light: [on: boolean]
  settle: [settled: boolean]
  tag: [tag: string]
  play: [at: number]
  jump: []
}>()
const FEW = 2 // answers that stand without being asked for
const c = computed(() => props.note.c)
const answers = computed(() => props.note.replies)
const shownAnswers = computed(() => (props.open || answers.value.length <= FEW ? answers.value : []))
const history = ref<string | null>(null)
const label = (r: WholeContribution) => (r.author.isMe ? 'You' : r.author.name)
const named = computed(() => `${label(c.value)}${c.value.note.kind === 'question' ? ' asks' : ''}`)
</script>

<template>
  <article
    :id="`c-${c.id}`"
    class="note"
    :class="{ lit, own: c.author.isMe }"
    tabindex="-1"
    :aria-label="`${letter ? `Note ${letter}, ` : ''}${named}`"
    @mouseenter="emit('light', true)"
    @mouseleave="emit('light', false)"
    @focusin="emit('light', true)"
  >
    <PlainButton
      v-if="letter"
      class="letter no-print"
      :aria-label="`to the words of note ${letter}`"
      @click="emit('jump')"
    >
      {{ letter }}
    </PlainButton>
    <EditBox
      v-if="desk.editing.value === c.id"
      :contribution="c"
      @done="desk.edited"
      @away="desk.edit(null)"
    />
    <div v-else class="said">
      <span class="by"
        >{{ label(c)
        }}<template v-if="c.author.isStaff"
          >, <strong>{{ c.author.role }}</strong></template
        ><i v-if="c.note.kind === 'question'"> asks</i><em v-if="c.isNew" class="new"> new</em></span
      >
      <span v-if="c.withdrawn" class="gone"
        >withdrawn; only {{ c.author.isMe ? 'you and staff see' : 'staff and its author see' }} it.
      </span>
      <span v-if="c.state === 'awaitingApproval'" class="gone">waits for approval. </span>
      <ProseText v-if="c.html !== null" class="words" :html="c.html" /><span v-else class="coming">…</span>
    </div>
    <p v-if="target" class="leads">
      <TextButton @click="emit('follow')">
        → “{{ target.length > 60 ? `${target.slice(0, 58)} …` : target }}”<template v-if="targetPage"
          >, {{ targetPage }}</template
        >
      </TextButton>
    </p>
    <p v-if="c.note.how === 'nearly' || c.note.how === 'elsewhere'" class="moved">
      <b>text moved:</b> {{ c.note.how === 'nearly' ? 're-found nearby' : 're-found word for word' }}
    </p>
    <p class="acts">
      <span v-if="note.open" class="un">no answer yet</span
      ><span v-else-if="c.note.settled" class="ok">answered</span>
      <PlainButton
        v-for="t in c.note.tags"
        :key="t"
        class="tag"
        :aria-label="`Only notes about ${t}`"
        @click="emit('tag', t)"
      >
        {{ t }}
      </PlainButton>
      <TextButton v-if="c.note.time" class="num" @click="emit('play', c.note.time[0])">
        {{ clock(c.note.time[0]) }}
      </TextButton>
      <span v-if="c.nods > 0" class="nods"
        >{{ c.nods }} {{ plural(c.nods, 'nod') }}{{ c.nodded ? ', yours too' : '' }}</span
      >
      <template v-if="desk.mayWrite && !c.withdrawn">
        <TextButton v-if="desk.mayAnswer(c)" @click="desk.reply(c.id)">
          answer{{ c.author.isMe || c.author.isStaff ? '' : ` ${c.author.givenName}` }}
        </TextButton>
        <TextButton
          v-if="!c.author.isMe && c.state === 'shown'"
          class="more"
          :aria-pressed="c.nodded"
          @click="desk.nod(c.id)"
        >
          {{ c.nodded ? 'remove nod' : 'nod' }}
        </TextButton>
        <TextButton
          v-if="
            c.note.kind === 'question' &&
            (c.author.isMe || desk.isStaff) &&
            (answers.length > 0 || c.note.settled)
          "
          @click="emit('settle', !c.note.settled)"
        >
          {{ c.note.settled ? 'open it again' : 'mark as answered' }}
        </TextButton>
        <TextButton v-if="c.changeUntil && c.author.isMe" class="more" @click="desk.edit(c.id)">
          change
        </TextButton>
        <TextButton
          v-if="(c.withdrawUntil && c.author.isMe) || desk.isStaff"
          class="more"
          @click="desk.withdraw(c.id)"
        >
          withdraw
        </TextButton>
        <TextButton v-if="desk.isStaff && c.state === 'awaitingApproval'" @click="desk.approve(c.id)">
          approve
        </TextButton>
      </template>
      <TextButton v-else-if="c.mayPutBack" @click="desk.putBack(c.id)">restore</TextButton>
      <TextButton v-if="c.editedAt && desk.isStaff" class="more" @click="history = history ? null : c.id">
        {{ history ? 'fold' : 'what it said' }}
      </TextButton>
    </p>
    <RevisionList v-if="history" :contribution-id="c.id" />
    <div v-if="answers.length > 0" class="answers">
      <p v-if="answers.length > FEW" class="count">
        {{ inWords(answers.length) }} answers<TextButton :aria-expanded="open" @click="emit('toggle')">
          {{ open ? 'fold' : 'show' }}
        </TextButton>
      </p>
      <div v-for="r in shownAnswers" :id="`c-${r.id}`" :key="r.id" class="answer" tabindex="-1">
        <EditBox
          v-if="desk.editing.value === r.id"
          :contribution="r"
          @done="desk.edited"
          @away="desk.edit(null)"
        />
        <template v-else>
          <span class="by"
            >{{ label(r)
            }}<template v-if="r.author.isStaff"
              >, <strong>{{ r.author.role }}</strong></template
            ><em v-if="r.isNew" class="new"> new</em></span
          ><span v-if="r.withdrawn" class="gone">withdrawn. </span
          ><ProseText v-if="r.html !== null" class="words" :html="r.html" />
          <span class="acts small">
            <span v-if="r.nods > 0" class="nods">{{ r.nods }} {{ plural(r.nods, 'nod') }}</span>
            <TextButton
              v-if="desk.mayWrite && !r.author.isMe && r.state === 'shown'"
              class="more"
              :aria-pressed="r.nodded"
              @click="desk.nod(r.id)"
            >
              {{ r.nodded ? 'remove nod' : 'nod' }}
            </TextButton>
            <TextButton
              v-if="desk.mayWrite && r.author.isMe && r.changeUntil"
              class="more"
              @click="desk.edit(r.id)"
            >
              change
            </TextButton>
            <TextButton
              v-if="desk.mayWrite && !r.withdrawn && ((r.author.isMe && r.withdrawUntil) || desk.isStaff)"
              class="more"
              @click="desk.withdraw(r.id)"
            >
              withdraw
            </TextButton>
            <TextButton v-if="r.withdrawn && r.mayPutBack" @click="desk.putBack(r.id)"> restore </TextButton>
          </span>
        </template>
      </div>
    </div>
    <WriteBox
      v-if="desk.replyTo.value === c.id"
      class="reply"
      :target="{ activityId: desk.activityId, parentId: c.id }"
      :label="`Your answer to ${c.author.isMe ? 'your note' : c.author.givenName}`"
      :min-words="desk.minWordsBelow(c.id)"
      :stored="desk.draftAt(c.id)"
      :autofocus="desk.caretIn.value"
      verb="Answer"
      closable
      @posted="desk.posted"
      @away="desk.closeWriting"
    />
  </article>
</template>

<style scoped>
.note {
  font: 400 0.84375rem/1.4 var(--read);
  padding: 1px 6px 1px 0;
  outline: none;
  position: relative;
}
.note:focus {
  box-shadow: -20px 0 0 -17px var(--ember);
}
.letter {
  position: absolute;
  left: -19px;
  top: 0;
  background: none;
  border: 0;
  padding: 0 3px;
  font: 650 0.75rem/1.55 var(--ui);
  color: var(--k-reading);
  cursor: pointer;
}
.own > .letter {
  color: var(--harbour);
}
.by {
  font: 500 0.75rem/1.4 var(--ui);
  color: var(--ink-2);
  margin-right: 6px;
}
.by i {
  font: italic 500 0.8125rem/1 var(--read);
  color: var(--k-reading);
}
.by strong {
  font-weight: 650;
  color: var(--harbour);
}
.new {
  font: 650 0.75rem/1 var(--ui);
  color: var(--ember);
  font-style: normal;
}
.note :deep(.prose) {
  font: inherit;
  display: inline;
}
.said :deep(p),
.answer :deep(p) {
  display: inline;
  font-size: 0.84375rem;
  line-height: 1.4;
}
.said :deep(p + p)::before,
.answer :deep(p + p)::before {
  content: '\A';
  white-space: pre;
}
.words {
  display: inline;
  font-size: 0.84375rem;
}
.lit .said {
  background: linear-gradient(var(--harbour-soft), var(--harbour-soft));
  box-shadow: 0 0 0 3px var(--harbour-soft);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 9px;
  padding-block: 8px 4px;
  align-items: baseline;
  font: 500 0.75rem/1.5 var(--ui);
  color: var(--ink-3);
}
.acts.small {
  display: inline-flex;
  margin-left: 7px;
}
.acts .link {
  font: inherit;
}
.acts .more {
  opacity: 0;
}
.note:hover .more,
.note:focus-within .more,
.note:focus .more,
.more:focus-visible {
  opacity: 1;
}
.un {
  color: var(--ember);
  font-weight: 650;
}
.ok {
  color: var(--moss);
  font-weight: 650;
}
.nods {
  color: var(--ink-2);
}
.tag {
  border: 0;
  background: none;
  padding: 5px 2px 4px;
  margin: -5px -2px -4px;
  font: italic 400 0.8125rem/1.2 var(--read);
  color: var(--ink-2);
  cursor: pointer;
  text-decoration: underline var(--spine);
  text-underline-offset: 3px;
}
.moved {
  font: 500 0.75rem/1.5 var(--ui);
  color: var(--ink-2);
  border-left: 3px double var(--ink-3);
  padding-left: 7px;
  margin: 1px 0;
}
.moved b {
  font-weight: 650;
}
.leads .link {
  font: italic 400 0.8125rem/1.4 var(--read);
  text-align: left;
}
.answers {
  margin: 2px 0 0 2px;
  padding-left: 12px;
  border-left: 1.5px solid var(--spine);
  color: var(--ink-2);
}
.count {
  font: 500 0.75rem/1.5 var(--ui);
}
.count .link {
  margin-left: 8px;
  font: inherit;
}
.answer {
  outline: none;
  padding: 1px 0;
}
.answer :deep(p) {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.gone {
  color: var(--ink-3);
  font-style: italic;
}
.reply {
  margin: 6px 0;
}
@media (hover: none) {
  .acts .more {
    opacity: 1;
  }
}
</style>
