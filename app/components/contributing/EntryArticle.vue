<script setup lang="ts">
import { threadRows } from '#core/contributing/threadRows'
import type { ThreadNode } from '#core/contributing/buildThread'
import type { LexiconSettingsBody } from '#shared/kinds/lexicon/settings'
import type { ContributionView, WholeContribution } from '#shared/contributing/thread'
import { plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import PersonDisc from '../people/PersonDisc.vue'
import AttachmentList from './AttachmentList.vue'
import HeldBar from './HeldBar.vue'
import ProseText from './ProseText.vue'
import RevisionList from './RevisionList.vue'
import type { TalkDesk } from './talkDesk'
import TextButton from '~/components/controls/TextButton.vue'

/** An entry of a journal or blog with the talk under it. */
const EditBox = defineAsyncComponent(() => import('./EditBox.vue'))
const MarkOne = defineAsyncComponent(() => import('../marking/MarkOne.vue'))
const WriteBox = defineAsyncComponent(() => import('./WriteBox.vue'))
const props = withDefaults(
  defineProps<{
    node: ThreadNode<ContributionView>
    desk: TalkDesk
    /** Whether it is said who wrote it. */
    authored?: boolean
    titled?: boolean
    /** Of a lexicon: what a term can be. */
    lexicon?: LexiconSettingsBody | null
    /** What answering is called here. */
    verb?: string
  }>(),
  { verb: 'comment', lexicon: null },
)
const { longDay, time, dayTime } = useTimes()
const entry = computed(() => props.node.item as WholeContribution)
const rows = computed(() =>
  threadRows(props.node.replies, {
    folded: props.desk.foldedThreads,
    unfolded: props.desk.openThreads,
    longThread: 1000,
    replyTo: props.desk.replyTo.value,
    isNew: c => c.view === 'whole' && c.isNew,
  }),
)
const editing = computed(() => props.desk.editing.value === entry.value.id)
const history = ref(false)
const nodWords = (c: WholeContribution) =>
  c.nods > 0 ? `${c.nods} ${plural(c.nods, 'nod')}${c.nodded ? ', yours too' : ''}` : ''
function writerTone(author: WholeContribution['author']) {
  if (author.isMe) return 'me'
  if (author.isStaff) return 'staff'
  return 'plain'
}
</script>

<template>
  <article
    :id="`c-${entry.id}`"
    class="entry"
    :class="{ gone: entry.withdrawn }"
    tabindex="-1"
    :aria-label="`${entry.title ?? 'Entry'}, ${entry.author.name}, ${longDay(entry.shownAt)}`"
  >
    <h2 v-if="entry.title && !editing">{{ entry.title }}</h2>
    <p class="by">
      <template v-if="authored"
        ><b>{{ entry.author.isMe ? 'You' : entry.author.name }}</b
        ><template v-if="entry.author.role">
          · <span class="role">{{ entry.author.role }}</span></template
        >
        ·
      </template>
      <span v-if="entry.isNew" class="nw">new </span>
      <template v-if="entry.state === 'scheduled' && entry.showAt"
        ><b class="nw">shows itself {{ dayTime(entry.showAt) }}</b></template
      ><template v-else>{{ longDay(entry.shownAt) }}, {{ time(entry.shownAt) }}</template> ·
      {{ entry.words }} words
      <template v-if="entry.onTop"> · <span class="nw">kept on top</span></template>
      <template v-if="entry.editedAt">
        · changed {{ dayTime(entry.editedAt)
        }}<TextButton v-if="desk.isStaff" @click="history = !history">
          {{ history ? 'fold' : 'what it said' }}
        </TextButton></template
      >
      <template v-if="entry.withdrawn"> · withdrawn</template>
      <slot name="meta" />
    </p>
    <EditBox
      v-if="editing"
      :contribution="entry"
      :titled="titled && !lexicon"
      :lexicon="lexicon"
      @done="desk.edited"
      @away="desk.edit(null)"
    />
    <ProseText v-else :html="entry.html ?? ''" :except="entry.type === 'term' ? entry.id : undefined" />
    <slot v-if="!editing" name="below" />
    <AttachmentList
      v-if="entry.files.length > 0"
      :files="entry.files"
      :html="entry.html ?? ''"
      :may-transcribe="entry.author.isMe || desk.isStaff"
    />
    <MarkOne
      v-if="desk.combine && !entry.author.isStaff && entry.state === 'shown' && !entry.withdrawn"
      :combine="desk.combine"
      :mark="entry.points === null && entry.done === null ? null : { points: entry.points, done: entry.done }"
      @mark="desk.mark(entry.id, $event)"
    />
    <RevisionList v-if="history" :contribution-id="entry.id" />
    <HeldBar
      v-if="entry.state === 'awaitingApproval'"
      :contribution="entry"
      :is-staff="desk.isStaff"
      @approve="desk.approve(entry.id)"
      @send-back="desk.sendBack(entry.id, $event)"
    />
    <p class="acts">
      <span v-if="nodWords(entry)" class="muted">{{ nodWords(entry) }}</span>
      <template v-if="desk.mayWrite && !entry.withdrawn">
        <TextButton
          v-if="!entry.author.isMe && entry.state === 'shown'"
          :aria-pressed="entry.nodded"
          @click="desk.nod(entry.id)"
        >
          {{ entry.nodded ? 'remove nod' : 'nod' }}
        </TextButton>
        <TextButton v-if="desk.mayAnswer(entry)" @click="desk.reply(entry.id)">
          {{ verb }}
        </TextButton>
        <TextButton v-if="entry.changeUntil && !editing" @click="desk.edit(entry.id)"> change </TextButton>
        <TextButton v-if="entry.withdrawUntil || desk.isStaff" @click="desk.withdraw(entry.id)">
          withdraw
        </TextButton>
        <TextButton
          v-if="desk.isStaff && authored && entry.state === 'shown'"
          @click="desk.keepOnTop(entry.id, !entry.onTop)"
        >
          {{ entry.onTop ? 'do not keep on top' : 'keep on top' }}
        </TextButton>
        <slot name="acts" />
      </template>
      <TextButton v-else-if="entry.mayPutBack" @click="desk.putBack(entry.id)"> restore </TextButton>
    </p>
    <div v-if="rows.length > 0 || desk.replyTo.value === entry.id" class="under">
      <template v-for="row in rows" :key="row.key">
        <div
          v-if="row.kind === 'post' && row.item.view === 'whole'"
          :id="`c-${row.item.id}`"
          class="comment"
          :style="{ marginLeft: `${Math.min(row.depth, 2) * 26}px` }"
          tabindex="-1"
        >
          <PersonDisc :initials="row.item.author.initials" :tone="writerTone(row.item.author)" />
          <div>
            <p class="by">
              <b>{{ row.item.author.isMe ? 'You' : row.item.author.name }}</b><template
                v-if="row.item.author.role"
              >
                · <span class="role">{{ row.item.author.role }}</span></template
              >
              · <span v-if="row.item.isNew" class="nw">new </span>{{ dayTime(row.item.shownAt)
              }}<template v-if="row.item.withdrawn"> · withdrawn</template>
            </p>
            <EditBox
              v-if="desk.editing.value === row.item.id"
              :contribution="row.item"
              @done="desk.edited"
              @away="desk.edit(null)"
            />
            <ProseText v-else :html="row.item.html ?? ''" />
            <AttachmentList
              v-if="row.item.files.length > 0"
              :files="row.item.files"
              :html="row.item.html ?? ''"
              :may-transcribe="row.item.author.isMe || desk.isStaff"
            />
            <HeldBar
              v-if="row.item.state === 'awaitingApproval'"
              :contribution="row.item"
              :is-staff="desk.isStaff"
              @approve="desk.approve(row.item.id)"
              @send-back="desk.sendBack(row.item.id, $event)"
            />
            <p class="acts">
              <span v-if="nodWords(row.item)" class="muted">{{ nodWords(row.item) }}</span>
              <template v-if="desk.mayWrite && !row.item.withdrawn">
                <TextButton v-if="!row.item.author.isMe" @click="desk.nod(row.item.id)">
                  {{ row.item.nodded ? 'remove nod' : 'nod' }}
                </TextButton>
                <TextButton v-if="desk.mayAnswer(row.item)" @click="desk.reply(row.item.id)">
                  reply
                </TextButton>
                <TextButton v-if="row.item.changeUntil" @click="desk.edit(row.item.id)"> change </TextButton>
                <TextButton v-if="row.item.withdrawUntil || desk.isStaff" @click="desk.withdraw(row.item.id)">
                  withdraw
                </TextButton>
              </template>
              <TextButton v-else-if="row.item.mayPutBack" @click="desk.putBack(row.item.id)">
                restore
              </TextButton>
            </p>
          </div>
        </div>
        <p v-else-if="row.kind === 'post'" class="comment muted">A comment stood here and was withdrawn.</p>
        <WriteBox
          v-else-if="row.kind === 'write'"
          class="writing"
          :target="{ activityId: desk.activityId, parentId: row.parentId }"
          :label="`Your reply to ${desk.authorOf(row.parentId) ?? 'it'}`"
          :min-words="1"
          :stored="desk.draftAt(row.parentId)"
          :attach="desk.attach"
          closable
          @posted="desk.posted"
          @away="desk.closeWriting"
          >To {{ desk.authorOf(row.parentId) ?? 'it' }}</WriteBox
        >
      </template>
      <WriteBox
        v-if="desk.replyTo.value === entry.id"
        class="writing"
        :target="{ activityId: desk.activityId, parentId: entry.id }"
        :label="`Your ${verb} to ${desk.authorOf(entry.id) ?? 'it'}`"
        :min-words="desk.minWordsBelow(entry.id)"
        :stored="desk.draftAt(entry.id)"
        :autofocus="desk.caretIn.value"
        :attach="desk.attach"
        closable
        @posted="desk.posted"
        @away="desk.closeWriting"
        >To {{ desk.authorOf(entry.id) ?? 'it' }}</WriteBox
      >
    </div>
  </article>
</template>

<style scoped>
.entry {
  outline: none;
  scroll-margin: 70px;
}
.entry:focus {
  box-shadow: -4px 0 0 var(--ember);
  border-radius: 0;
}
.gone {
  opacity: 0.7;
}
h2 {
  font: 600 1.1875rem/1.35 var(--read);
  margin-bottom: 2px;
}
.by {
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink-3);
}
.by b {
  font-weight: 650;
  color: var(--ink);
}
.role {
  font-weight: 650;
  color: var(--harbour);
}
.nw {
  color: var(--ember);
  font-weight: 650;
}
.prose {
  font-size: 1rem;
  line-height: 1.58;
  margin-top: 4px;
  max-width: 44em;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 4px 12px;
  flex-wrap: wrap;
  font-size: 0.78125rem;
  margin-top: 5px;
  align-items: baseline;
}
.under {
  border-left: 1.5px solid var(--spine);
  margin: 12px 0 4px 2px;
  padding-left: 18px;
  display: grid;
  gap: 12px;
}
.comment {
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr);
  gap: 10px;
  outline: none;
  scroll-margin: 70px;
}
.comment:focus {
  box-shadow: -4px 0 0 var(--ember);
  border-radius: 0;
}
.comment .prose {
  font-size: 0.9375rem;
  line-height: 1.5;
  margin-top: 0;
}
.comment .acts {
  margin-top: 2px;
}
.writing {
  max-width: 46em;
}
</style>
