<script setup lang="ts">
import { countReplies, type ThreadNode } from '#core/contributing/buildThread'
import { markPassages } from '#core/contributing/markPassages'
import type { ContributionView, WholeContribution } from '#shared/contributing/thread'
import { plural } from '../../../composables/planning/expectationWords'
import { useTimes } from '../../../composables/planning/useTimes'
import PersonDisc from '../../people/PersonDisc.vue'
import type { ThreadDesk } from './threadDesk'
import WriteBox from './WriteBox.vue'

defineOptions({ name: 'ThreadPost' })
const props = withDefaults(defineProps<{
  node: ThreadNode<ContributionView>
  desk: ThreadDesk
  depth?: number
}>(), { depth: 0 })
const { day, time, shortDayTime } = useTimes()

const FOLD_WORDS = 52 // words of a long post that stand before it is unfolded
const DEEPEST = 2 // from here on answers no longer move to the right

const whole = computed<WholeContribution | null>(() => props.node.item.view === 'whole' ? props.node.item : null)
const long = computed(() => (whole.value?.words ?? 0) > FOLD_WORDS + 40)
const open = computed(() => !long.value || props.desk.unfolded.has(props.node.item.id))
const lead = computed(() => {
  const words = whole.value?.text.split(/\s+/) ?? []
  return words.slice(0, FOLD_WORDS).join(' ')
})
const hidden = computed(() => (whole.value?.text.split(/\s+/).length ?? 0) - FOLD_WORDS)
/** Passages others have taken up, with their letters. */
const passages = computed(() => props.desk.passagesOf(props.node.item.id))
const marked = (html: string) => markPassages(html, passages.value.map(p => ({ exact: p.exact, open: '<mark class="taken">', close: `</mark><a class="letter-mark" href="#c-${p.byId}" aria-label="taken up, go to the reply">${p.letter}</a>` })))
const escaped = (text: string) => text.replace(/[&<>"]/g, c => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)
const html = computed(() => open.value ? marked(whole.value!.html) : marked(`<p>${escaped(lead.value)} …</p>`))
const label = computed(() => props.desk.letterOf(props.node.item.id))
const tone = computed(() => whole.value?.author.isMe ? 'me' : whole.value?.author.isStaff ? 'staff' : 'plain')
const below = computed(() => countReplies(props.node))
const folded = computed(() => props.desk.foldedThreads.has(props.node.item.id) && below.value > 0)
const newBelow = computed(() => props.desk.newBelow(props.node))
const answering = computed(() => props.desk.replyTo.value === props.node.item.id)
const parent = computed(() => props.node.item.parentId ? props.desk.authorOf(props.node.item.parentId) : null)
function selected() {
  const words = window.getSelection()?.toString().trim() ?? ''
  props.desk.choose(words.length > 2 && words.length <= 300 && whole.value?.text.includes(words) ? { contributionId: props.node.item.id, exact: words } : null)
}
</script>

<template>
  <div class="post" :class="{ kid: depth > 0, flat: depth > DEEPEST }" :style="{ '--d': Math.min(depth, DEEPEST) }">
    <article v-if="whole" :id="`c-${whole.id}`" class="p" tabindex="-1" :aria-label="`${whole.author.name}, ${day(whole.shownAt)} ${time(whole.shownAt)}`">
      <div class="when" :class="{ new: whole.isNew }"><em v-if="whole.isNew">new</em><template v-if="depth === 0 && !whole.isNew">{{ day(whole.shownAt) }}<br>{{ time(whole.shownAt) }}</template><template v-else>{{ shortDayTime(whole.shownAt) }}</template></div>
      <PersonDisc class="disc" :initials="whole.author.initials" :tone="tone" />
      <i v-if="(node.replies.length > 0 && !folded) || answering" class="stem" />
      <div class="txt">
        <p class="by">
          <b>{{ whole.author.isMe ? 'You' : whole.author.name }}</b>
          <template v-if="whole.author.isStaff"> · <span class="role">{{ whole.author.role }}</span></template>
          <template v-if="depth === 0"> · opening post, {{ whole.words }} words<template v-if="node.replies.length === 0 && !whole.author.isMe"> · no answer yet</template></template>
          <template v-else-if="whole.takesUp"> takes up {{ parent }}</template>
          <template v-else-if="depth > DEEPEST && parent"> answers {{ parent }}</template>
          <template v-if="whole.editedAt"> · changed {{ time(whole.editedAt) }}</template>
          <template v-if="whole.withdrawn"> · withdrawn, only you and staff see it</template>
        </p>
        <p v-if="whole.takesUp" class="quoted"><svg width="22" height="18" aria-hidden="true"><path d="M4 0v10q0 3 3 3h10" /></svg>“{{ whole.takesUp.exact }}”<a v-if="label" class="letter-mark" :href="`#c-${whole.takesUp.contributionId}`" aria-label="go to the passage">{{ label }}</a></p>
        <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
        <div class="prose" @mouseup="selected" v-html="html" />
        <button v-if="long" class="link more" type="button" :aria-expanded="open" @click="desk.toggleFold(whole.id)">{{ open ? 'fold' : `${hidden} more ${plural(hidden, 'word')}` }}</button>
      </div>
      <div class="side">
        <b v-if="whole.nods > 0">{{ whole.nods }} {{ plural(whole.nods, 'nod') }}<template v-if="whole.nodded">, yours too</template></b>
        <template v-if="desk.mayWrite && !whole.withdrawn">
          <button v-if="!whole.author.isMe" class="link" type="button" :aria-pressed="whole.nodded" @click="desk.nod(whole.id)">{{ whole.nodded ? 'take it back' : 'nod' }}</button>
          <button class="link" type="button" @click="desk.reply(whole.id)">reply</button>
          <button v-if="desk.chosen.value?.contributionId === whole.id" class="link take" type="button" @click="desk.takeUp(desk.chosen.value!)">take up the chosen words</button>
          <template v-if="whole.changeUntil && whole.author.isMe"><button class="link" type="button" @click="desk.withdraw(whole.id)">withdraw</button></template>
        </template>
        <button v-else-if="whole.withdrawn && whole.author.isMe" class="link" type="button" @click="desk.putBack(whole.id)">put it back</button>
      </div>
    </article>
    <article v-else :id="`c-${node.item.id}`" class="p gone"><p>A post stood here and was withdrawn.</p></article>

    <div v-if="folded" class="kids">
      <div class="folded"><b>{{ below }} {{ plural(below, 'reply', 'replies') }}</b><span v-if="newBelow" class="nw">{{ newBelow }} new</span><button class="link small" type="button" @click="desk.toggleThread(node.item.id)">unfold</button></div>
    </div>
    <div v-else-if="node.replies.length > 0 || answering" class="kids" :class="{ flat: depth >= DEEPEST }">
      <ThreadPost v-for="reply in node.replies" :key="reply.item.id" :node="reply" :desk="desk" :depth="depth + 1" />
      <div v-if="answering && whole" class="kid writing">
        <WriteBox
          :key="whole.id" :activity-id="desk.activityId" :parent-id="whole.id" :to="whole.author.givenName" :min-words="desk.minReply" :stored="desk.draftAt(whole.id)"
          :takes-up="desk.takesUp.value" :autofocus="desk.caretIn.value" @posted="desk.posted" @away="desk.putAway" @drop-passage="desk.dropPassage"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.post { position: relative; }
.p { position: relative; outline: none; scroll-margin: 90px; }
.p:focus-visible { box-shadow: -4px 0 0 var(--ember); border-radius: 0; }
.p:focus { box-shadow: -4px 0 0 var(--ember); }
.when { position: absolute; left: calc(-118px - var(--d) * 42px); top: 0; width: 104px; text-align: right; font-size: 0.75rem; line-height: 17px; color: var(--ink-3); padding-top: 6px; }
.when.new { color: var(--ink); }
.when.new em { font: 650 0.75rem/17px var(--ui); color: var(--ember); display: block; }
.when.new::before { content: ""; position: absolute; left: 20px; top: 8px; height: 31px; width: 4px; border-radius: 2px; background: var(--ember); }
.side { position: absolute; right: -138px; top: 5px; width: 120px; font-size: 0.78125rem; line-height: 18px; color: var(--ink-2); display: flex; flex-wrap: wrap; gap: 0 9px; align-content: start; }
.side b { width: 100%; font-weight: 600; color: var(--ink); }
.side .take { width: 100%; text-align: left; font-weight: 650; color: var(--ember); }
.disc { position: absolute; left: 0; top: 0; z-index: 1; }
.txt { padding-left: 42px; }
.by { font-size: 0.8125rem; line-height: 18px; color: var(--ink-3); padding-top: 5px; margin-bottom: 2px; }
.by b { font-weight: 650; color: var(--ink); }
.role { font-weight: 650; color: var(--harbour); }
.prose { font-size: 0.96875rem; line-height: 1.52; }
.more { font-size: 0.78125rem; }
.quoted { position: relative; font: italic 400 0.90625rem/1.45 var(--read); color: var(--ink-2); padding-left: 24px; margin: 1px 0 3px; }
.quoted svg { position: absolute; left: 0; top: -1px; }
.quoted path { fill: none; stroke: var(--harbour); stroke-width: 1.6; }
.quoted .letter-mark { font-style: normal; }
.kids { padding-left: 42px; }
.kids.flat { padding-left: 0; }
.kid { position: relative; padding-top: 14px; }
.kid > .p > .when { top: 0; }
.kid::before { content: ""; position: absolute; left: -28px; top: 0; height: 29px; width: 27px; border: solid var(--spine); border-width: 0 0 1.5px 1.5px; border-bottom-left-radius: 12px; }
.kid:not(:last-child)::after { content: ""; position: absolute; left: -28px; top: 0; bottom: 0; border-left: 1.5px solid var(--spine); }
.kids.flat > .kid::before, .kids.flat > .kid::after { display: none; }
.stem { position: absolute; left: 14px; top: 30px; bottom: 0; border-left: 1.5px solid var(--spine); }
.writing { margin-right: -116px; }
.gone { padding: 6px 0 6px 42px; color: var(--ink-3); font-style: italic; }
.folded { display: flex; align-items: center; gap: 10px; font-size: 0.8125rem; height: 30px; }
.nw { color: var(--ember); font-weight: 650; }
@media (max-width: 760px) {
  .when { position: static; width: auto; text-align: left; padding: 0 0 2px 42px; }
  .when br { display: none; }
  .when.new::before { left: -10px; }
  .when.new em { display: inline; margin-right: 6px; }
  .side { position: static; width: auto; padding: 4px 0 0 42px; gap: 4px 14px; }
  .side b, .side .take { width: auto; }
  .kids { padding-left: 18px; }
  .kid::before { left: -18px; width: 16px; }
  .kid:not(:last-child)::after { left: -18px; }
  .writing { margin-right: 0; }
}
</style>
