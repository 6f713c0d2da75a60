<script setup lang="ts">
import { markPassages } from '#core/contributing/markPassages'
import type { ThreadRow } from '#core/contributing/threadRows'
import type { ContributionView, WholeContribution } from '#shared/contributing/thread'
import { useTimes } from '~/composables/planning/useTimes'
import { isPrinting } from '~/composables/shell/printing'
import { useTermsStore } from '~/stores/terms'
import PersonDisc from '~/components/people/PersonDisc.vue'
import AttachmentList from '~/components/contributing/AttachmentList.vue'
import HeldBar from '~/components/contributing/HeldBar.vue'
import RevisionList from '~/components/contributing/RevisionList.vue'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import PostActs from './PostActs.vue'
import PostByline from './PostByline.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** A post of a discussion: its words, its author, what it answers, and the acts it allows. */
const MarkOne = defineAsyncComponent(() => import('~/components/marking/MarkOne.vue'))
const EditBox = defineAsyncComponent(() => import('~/components/contributing/EditBox.vue'))
const props = withDefaults(
  defineProps<{
    row: Extract<ThreadRow<ContributionView>, { kind: 'post' }>
    desk: TalkDesk
    /** What the first post of a thread is called here. */
    opening?: string
  }>(),
  { opening: 'opening post' },
)
const { day, time, shortDayTime } = useTimes()

const FOLD_WORDS = 52 // words of a long post that stand before it is unfolded
const DEEPEST = 2 // from here on answers no longer move to the right

const terms = useTermsStore()
const item = computed(() => props.row.item)
const whole = computed<WholeContribution | null>(() => (item.value.view === 'whole' ? item.value : null))
const depth = computed(() => props.row.depth)
const long = computed(() => (whole.value?.words ?? 0) > FOLD_WORDS + 40)
const open = computed(() => !long.value || isPrinting.value || props.desk.unfolded.has(item.value.id))
/** Passages others have taken up, with their letters. */
const passages = computed(() => props.desk.passagesOf(item.value.id))
const html = computed(() =>
  whole.value?.html === null || !whole.value
    ? null
    : terms.link(
        markPassages(
          whole.value.html,
          passages.value.map(p => ({
            exact: p.exact,
            open: '<mark class="taken">',
            close: `</mark><a class="letter-mark" href="#c-${p.byId}" aria-label="taken up, go to the reply">${p.letter}</a>`,
          })),
        ),
      ),
)
const label = computed(() => props.desk.letterOf(item.value.id))
const tone = computed(() => {
  if (whole.value?.author.isMe) return 'me'
  if (whole.value?.author.isStaff) return 'staff'
  return 'plain'
})
const parent = computed(() => (item.value.parentId ? props.desk.authorOf(item.value.parentId) : null))
const editing = computed(() => props.desk.editing.value === item.value.id)
const isUnanswered = computed(
  () => props.row.answers === 0 && whole.value?.author.isMe === false && whole.value.state === 'shown',
)
const history = ref(false)
const lines = computed(() => [0, 1].map(l => depth.value > l + 1 && props.row.lines[l] === true))
const prose = ref<HTMLElement | null>(null)
const loose = (text: string) => text.replace(/\s+/g, ' ')
/** What gets the focus is to be seen: a folded text unfolds for a link in its hidden part. */
function focused(event: FocusEvent) {
  const target = event.target as HTMLElement
  if (
    !open.value &&
    prose.value &&
    target.getBoundingClientRect().bottom > prose.value.getBoundingClientRect().bottom
  )
    props.desk.toggleFold(item.value.id)
}
function selected() {
  const words = window.getSelection()?.toString().trim() ?? ''
  props.desk.choose(
    words.length > 2 &&
      words.length <= 300 &&
      loose(prose.value?.textContent ?? '').includes(loose(words)) &&
      !words.includes('\n')
      ? { contributionId: item.value.id, exact: words }
      : null,
  )
}
</script>

<template>
  <div
    class="post"
    :class="{ kid: depth > 0, flat: depth > DEEPEST, root: depth === 0 }"
    :style="{ '--d': Math.min(depth, DEEPEST) }"
  >
    <i v-for="(on, l) in lines" v-show="on" :key="l" class="line" :style="{ left: `${l * 42 + 14}px` }" />
    <template v-if="depth > 0 && depth <= DEEPEST"
      ><i class="elbow" /><i v-if="row.goesOn" class="line own"
    /></template>
    <article
      v-if="whole"
      :id="`c-${whole.id}`"
      class="p"
      tabindex="-1"
      :aria-label="`${whole.author.name}, ${day(whole.shownAt)} ${time(whole.shownAt)}`"
    >
      <div class="when" :class="{ new: whole.isNew }">
        <em v-if="whole.isNew">new</em
        ><template v-if="depth === 0 && !whole.isNew"
          >{{ day(whole.shownAt) }} <br />{{ time(whole.shownAt) }}</template
        ><template v-else>{{ shortDayTime(whole.shownAt) }}</template>
      </div>
      <PersonDisc class="disc" :initials="whole.author.initials" :tone="tone" />
      <i v-if="row.stem" class="stem" />
      <div class="txt">
        <PostByline
          :post="whole"
          :desk="desk"
          :opening="opening"
          :parent="parent"
          :at-top="depth === 0"
          :flat="depth > DEEPEST"
          :unanswered="isUnanswered"
          :history="history"
          @history="history = !history"
        />
        <p v-if="whole.takesUp" class="quoted">
          <svg width="22" height="18" aria-hidden="true"><path d="M4 0v10q0 3 3 3h10" /></svg>“{{
            whole.takesUp.exact
          }}”<a
            v-if="label"
            class="letter-mark"
            :href="`#c-${whole.takesUp.contributionId}`"
            aria-label="go to the passage"
            >{{ label }}</a
          >
        </p>
        <EditBox v-if="editing" :contribution="whole" @done="desk.edited" @away="desk.edit(null)" />
        <template v-else>
          <p
            v-if="html === null"
            class="prose coming"
            :style="{ height: `${Math.ceil(Math.min(whole.words, 60) / 12) * 1.5}em` }"
            aria-hidden="true"
          />
          <!-- eslint-disable vue/no-v-html -- sanitised on the server when it was written -->
          <div
            v-else
            ref="prose"
            class="prose"
            :class="{ short: !open }"
            dir="auto"
            @mouseup="selected"
            @choose="selected"
            @focusin="focused"
            v-html="html"
          />
          <!-- eslint-enable vue/no-v-html -->
          <TextButton v-if="long" class="more" :aria-expanded="open" @click="desk.toggleFold(whole.id)">
            {{ open ? 'fold' : `all ${whole.words} words` }}
          </TextButton>
          <AttachmentList
            v-if="whole.files.length > 0"
            :files="whole.files"
            :html="whole.html ?? ''"
            :may-transcribe="whole.author.isMe || desk.isStaff"
          />
          <MarkOne
            v-if="desk.combine && !whole.author.isStaff && whole.state === 'shown' && !whole.withdrawn"
            :combine="desk.combine"
            :mark="
              whole.points === null && whole.done === null ? null : { points: whole.points, done: whole.done }
            "
            @mark="desk.mark(whole.id, $event)"
          />
        </template>
        <RevisionList v-if="history" :contribution-id="whole.id" />
        <HeldBar
          v-if="whole.state === 'awaitingApproval'"
          :contribution="whole"
          :is-staff="desk.isStaff"
          @approve="desk.approve(whole.id)"
          @send-back="desk.sendBack(whole.id, $event)"
        />
      </div>
      <PostActs
        :post="whole"
        :desk="desk"
        :editing="editing"
        :may-fold="row.stem && row.answers > 1 && depth === 0"
      />
    </article>
    <article v-else :id="`c-${item.id}`" class="p gone">
      <i v-if="row.stem" class="stem" />
      <p>A post stood here and was withdrawn.</p>
    </article>
  </div>
</template>

<style scoped>
.post {
  position: relative;
  padding-left: calc(var(--d) * 42px);
}
.root {
  padding-top: 20px;
}
.kid {
  padding-top: 14px;
}
.p {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  outline: none;
  scroll-margin: 90px;
}
.p:focus {
  box-shadow: -4px 0 0 var(--ember);
  border-radius: 0;
}
.when {
  position: absolute;
  left: calc(-118px - var(--d) * 42px);
  top: 0;
  width: 104px;
  text-align: right;
  font-size: 0.75rem;
  line-height: 17px;
  color: var(--ink-3);
  padding-top: 6px;
}
.when.new {
  color: var(--ink);
}
.when.new em {
  font: 650 0.75rem/17px var(--ui);
  color: var(--ember);
  display: block;
}
.when.new::before {
  content: '';
  position: absolute;
  left: 20px;
  top: 8px;
  height: 31px;
  width: 4px;
  border-radius: 2px;
  background: var(--ember);
}
.disc {
  position: absolute;
  left: 0;
  top: 0;
  z-index: 1;
}
.txt {
  grid-area: 1 / 1;
  padding-left: 42px;
  min-height: 40px;
}
.prose {
  font-size: 0.96875rem;
  line-height: 1.52;
  overflow-wrap: anywhere;
}
.short {
  display: -webkit-box;
  -webkit-line-clamp: 4;
  -webkit-box-orient: vertical;
  overflow: clip;
}
.coming {
  background: repeating-linear-gradient(var(--line-soft) 0 0.7em, transparent 0.7em 1.5em);
  border-radius: 3px;
  opacity: 0.6;
  max-width: 40em;
}
.more {
  font-size: 0.78125rem;
}
.quoted {
  position: relative;
  font: italic 400 0.90625rem/1.45 var(--read);
  color: var(--ink-2);
  padding-left: 24px;
  margin: 1px 0 3px;
}
.quoted svg {
  position: absolute;
  left: 0;
  top: -1px;
}
.quoted path {
  fill: none;
  stroke: var(--harbour);
  stroke-width: 1.6;
}
.quoted .letter-mark {
  font-style: normal;
}
.elbow {
  position: absolute;
  left: calc((var(--d) - 1) * 42px + 14px);
  top: 0;
  height: 29px;
  width: 27px;
  border: solid var(--spine);
  border-width: 0 0 1.5px 1.5px;
  border-bottom-left-radius: 12px;
}
.line {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1.5px solid var(--spine);
}
.own {
  left: calc((var(--d) - 1) * 42px + 14px);
}
.stem {
  position: absolute;
  left: 14px;
  top: 30px;
  bottom: 0;
  border-left: 1.5px solid var(--spine);
}
.flat .stem {
  display: none;
}
.gone {
  padding: 6px 0 6px 42px;
  color: var(--ink-3);
  font-style: italic;
  min-height: 34px;
}
@media (max-width: 760px) {
  .p {
    display: block;
  }
  .post {
    padding-left: calc(var(--d) * 18px);
  }
  .line,
  .elbow,
  .own {
    display: none;
  }
  .when {
    position: static;
    width: auto;
    text-align: left;
    padding: 0 0 2px 42px;
  }
  .when br {
    display: none;
  }
  .when.new::before {
    left: -10px;
  }
  .when.new em {
    display: inline;
    margin-right: 6px;
  }
}
</style>
