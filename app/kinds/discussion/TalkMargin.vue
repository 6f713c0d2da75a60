<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import type { ActivityView, CheckView } from '#shared/contributing/activity'
import type { WholeContribution } from '#shared/contributing/thread'
import { plural } from '#core/language'
import { points } from '~/composables/marking/points'
import ExpectationMargin from '~/components/contributing/ExpectationMargin.vue'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

const props = defineProps<{
  activity: ActivityView
  checks: readonly CheckView[]
  contributions: readonly WholeContribution[]
  notHeard: readonly string[]
  counts: { fresh: number; unanswered: number; instructor: number; held: number }
  isStaff: boolean
  /** Then voices are told by thread, each under another name: no list of them says who is who. */
  namesHidden: boolean
  onlyFrom: string | null
  /** Where each section or group talks by itself: all of them to staff, the reader's own to others. */
  groups: readonly { id: string; title: string }[]
  onlyGroup: string | null
  /** The one post nobody has answered that the reader could answer. */
  lonely: WholeContribution | null
}>()
const emit = defineEmits<{
  jump: [to: 'fresh' | 'unanswered' | 'instructor' | 'held']
  goTo: [id: string]
  only: [authorId: string | null]
  group: [id: string | null]
}>()

const voices = computed(() => {
  const byAuthor = new Map<
    string,
    { id: string; name: string; isMe: boolean; count: number; words: number }
  >()
  if (props.namesHidden) return []
  for (const { author, words, withdrawn, state } of props.contributions) {
    if (withdrawn || state !== 'shown') continue
    const voice = byAuthor.get(author.id) ?? {
      id: author.id,
      name: author.isMe ? 'You' : author.givenName,
      isMe: author.isMe,
      count: 0,
      words: 0,
    }
    byAuthor.set(author.id, { ...voice, count: voice.count + 1, words: voice.words + words })
  }
  return [...byAuthor.values()].sort(
    (a, b) => b.count - a.count || b.words - a.words || a.name.localeCompare(b.name),
  )
})
const postsIn = (group: string) =>
  props.contributions.filter(c => c.circle === group && c.state === 'shown').length
const most = computed(() => Math.max(1, ...voices.value.map(v => v.count)))
const JUMPS = [
  ['fresh', 'new since last time', ['j', 'k']],
  ['unanswered', 'unanswered posts', ['u']],
  ['instructor', 'instructor', ['i']],
] as const
const names = (list: readonly string[]) =>
  list.length <= 6 ? list.join(', ') : `${list.slice(0, 6).join(', ')} and ${list.length - 6} more`
</script>

<template>
  <aside class="margin" aria-label="Beside the talk">
    <ExpectationMargin :activity="activity" :checks="checks">
      <p v-if="lonely" class="nudge">
        Nobody has answered {{ lonely.author.givenName }} yet.
        <TextButton @click="emit('goTo', lonely.id)"> read {{ lonely.author.givenName }}’s post </TextButton>
      </p>
    </ExpectationMargin>
    <section v-if="groups.length > 0">
      <h2>Talking apart <span v-if="isStaff">choose one to read only theirs</span></h2>
      <div v-if="isStaff" class="groups num">
        <PlainButton
          v-for="c in groups"
          :key="c.id"
          class="v"
          :class="{ on: onlyGroup === c.id }"
          :aria-pressed="onlyGroup === c.id"
          @click="emit('group', onlyGroup === c.id ? null : c.id)"
        >
          <span class="n">{{ c.title }}</span><i
            :style="{ width: `${(100 * postsIn(c.id)) / Math.max(1, ...groups.map(x => postsIn(x.id)))}%` }"
          /><span>{{ postsIn(c.id) }}</span>
        </PlainButton>
      </div>
      <p v-else class="silent">
        You talk within {{ groups[0]!.title }}. The others talk by themselves; the instructor reads all.
      </p>
    </section>
    <section v-if="contributions.length > 0">
      <h2>Jump to</h2>
      <div class="jump">
        <template v-for="[to, label, keys] in JUMPS" :key="to">
          <TextButton :disabled="counts[to] === 0" @click="emit('jump', to)"> {{ label }}</TextButton><b
            class="num"
            >{{ counts[to] }}</b
          ><span class="keys"><KeyHint v-for="k in keys" :key="k" :of="String(k)" /></span>
        </template>
        <template v-if="isStaff && counts.held > 0"
          ><TextButton @click="emit('only', 'held')">held for approval</TextButton
          ><b class="num some">{{ counts.held }}</b
          ><span
        /></template>
      </div>
      <p v-if="namesHidden" class="silent">
        Names are hidden here: in each thread everyone goes by another name. Staff know who wrote.
      </p>
    </section>
    <section v-if="voices.length > 0">
      <h2>Voices so far <span>choose one to read only theirs</span></h2>
      <div class="voices num">
        <PlainButton
          v-for="v in voices"
          :key="v.id"
          class="v"
          :class="{ you: v.isMe, on: onlyFrom === v.id }"
          :aria-pressed="onlyFrom === v.id"
          @click="emit('only', onlyFrom === v.id ? null : v.id)"
        >
          <span class="visually-hidden"
            >{{ v.name }}, {{ v.count }} {{ plural(v.count, 'contribution') }}</span
          >
          <span class="n" aria-hidden="true">{{ v.name }}</span><i
            :style="{ width: `${(v.count / most) * 100}%` }"
          /><span aria-hidden="true">{{ v.count }}</span>
        </PlainButton>
      </div>
      <p v-if="notHeard.length > 0" class="silent">Not heard yet: {{ names(notHeard) }}.</p>
    </section>
    <slot />
    <section v-if="activity.rubric" class="marked">
      <h2>
        Marked with <span v-if="activity.points">{{ points(activity.points) }} points</span>
      </h2>
      <details>
        <summary>{{ activity.rubric.title }}</summary>
        <dl>
          <template v-for="c in activity.rubric.criteria" :key="c.id"
            ><dt>
              {{ c.title }} <span class="num">{{ points(c.max) }}</span>
            </dt>
            <dd>{{ c.levels.at(-1)!.title }}: {{ c.levels.at(-1)!.descriptor }}</dd></template
          >
        </dl>
      </details>
    </section>
  </aside>
</template>

<style scoped>
.margin {
  padding: 14px 20px 24px;
  overflow-y: auto;
}
h2 {
  font-size: 0.8125rem;
  line-height: 18px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  letter-spacing: 0;
}
h2 span {
  font-weight: 500;
  font-size: 0.75rem;
  color: var(--ink-3);
}
section + section {
  border-top: 1px solid var(--line);
  margin-top: 12px;
  padding-top: 12px;
}
.nudge {
  font: 400 0.90625rem/1.45 var(--read);
  margin-top: 11px;
  padding-left: 11px;
  border-left: 3px solid var(--ember);
}
.nudge .link {
  font: 500 0.8125rem/1 var(--ui);
}
.jump {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 0 10px;
  font-size: 0.8125rem;
  margin-top: 4px;
  align-items: center;
}
.jump > * {
  padding: 4px 0;
  line-height: 18px;
}
.jump .link {
  justify-self: start;
}
.jump .link:disabled {
  color: var(--ink-3);
  text-decoration: none;
  cursor: default;
}
section + :slotted(section) {
  border-top: 1px solid var(--line);
  margin-top: 12px;
  padding-top: 12px;
}
.some {
  color: var(--ember);
}
.keys {
  display: flex;
  gap: 3px;
  justify-content: flex-end;
}
.voices {
  columns: 2;
  column-gap: 20px;
  margin-top: 6px;
}
.groups {
  margin-top: 6px;
}
.groups .v {
  grid-template-columns: minmax(0, 2fr) 1fr 20px;
}
.v {
  position: relative;
  width: 100%;
  display: grid;
  grid-template-columns: 62px 1fr 14px;
  gap: 6px;
  align-items: center;
  font-size: 0.78125rem;
  height: 24px;
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  cursor: pointer;
  break-inside: avoid;
}
.v i {
  height: 3px;
  border-radius: 2px;
  background: var(--harbour);
  display: block;
}
.v span:last-child {
  text-align: right;
  color: var(--ink-2);
}
.n {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.v:hover .n {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.on {
  font-weight: 650;
}
.on .n {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.you {
  font-weight: 650;
}
.you i {
  background: var(--ember);
}
.silent {
  font-size: 0.78125rem;
  color: var(--ink-3);
  margin-top: 7px;
  line-height: 17px;
}
.marked {
  font-size: 0.78125rem;
  line-height: 18px;
  color: var(--ink-2);
}
.marked h2 {
  color: var(--ink);
}
summary {
  cursor: pointer;
  color: var(--harbour);
  font-weight: 500;
  margin-top: 3px;
}
dl {
  margin: 6px 0 0;
}
dt {
  font-weight: 600;
  color: var(--ink);
  margin-top: 6px;
  display: flex;
  justify-content: space-between;
}
dd {
  margin: 0;
}
</style>
