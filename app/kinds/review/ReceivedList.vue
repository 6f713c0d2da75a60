<script setup lang="ts">
import type { OwnReviews, ReceivedReview } from '#shared/kinds/review/review'
import { tenth } from '~/composables/marking/peerWords'
import { points } from '~/composables/marking/points'
import ReceivedAnswer from './ReceivedAnswer.vue'
import { vRoving } from '~/components/controls/vRoving'
import PlainButton from '~/components/controls/PlainButton.vue'

/** What readers said, criterion by criterion, under the names they go by for this work. */
const props = defineProps<{
  own: OwnReviews
  activityId: string
  summary: ReadonlyArray<{ readonly id: string; readonly mean: number }>
}>()
const emit = defineEmits<{
  helpful: [id: string, value: number | null]
  answered: []
}>()
const teammates = computed(() => props.own.handIn.subject === 'teammates')
const HELP = ['of no help', 'of little help', 'of some help', 'helpful', 'very helpful']
const meanOf = (id: string) => props.summary.find(s => s.id === id)?.mean ?? null
const selfGave = (id: string) => props.own.self?.points[id]
const given = (r: ReceivedReview, id: string) => r.points[id]
</script>

<template>
  <section aria-label="What readers said">
    <h2>
      <i>{{ teammates ? 2 : 3 }}</i> {{ teammates ? 'What your teammates said of you' : 'What readers said' }}
      <span v-if="!own.released">shown once they are released</span>
    </h2>
    <p v-if="!own.released" class="hint">
      {{
        teammates
          ? 'Your instructor reads everything first.'
          : 'Your instructor looks at every review first; then all of you get what is in by then, at the same moment.'
      }}
    </p>
    <p v-else-if="own.received.length === 0" class="hint">
      Nobody has said anything about {{ teammates ? 'you' : 'your work' }} yet.
    </p>
    <template v-else>
      <div v-for="c in own.criteria" :key="c.id" class="criterion">
        <h3>
          {{ c.title }}
          <span v-if="meanOf(c.id) !== null" class="num"
            >{{ tenth(meanOf(c.id)!) }} of {{ points(c.max) }}</span
          >
        </h3>
        <div class="scale" :style="{ '--n': c.max / 100 }" aria-hidden="true">
          <i
            v-if="selfGave(c.id) !== undefined"
            class="mine"
            :style="{ left: `${(selfGave(c.id)! / c.max) * 100}%` }"
          /><i
            v-for="r in own.received.filter(x => given(x, c.id) !== undefined)"
            :key="r.id"
            :style="{ left: `${(given(r, c.id)! / c.max) * 100}%` }"
          />
        </div>
        <p v-if="selfGave(c.id) !== undefined" class="hint">
          You gave {{ teammates ? 'yourself' : 'your own work' }}
          <b class="num">{{ points(selfGave(c.id)!) }}</b>.
        </p>
        <div v-for="r in own.received.filter(x => x.remarks[c.id])" :key="r.id" class="said">
          <p class="from">
            {{ r.from
            }}<span v-if="given(r, c.id) !== undefined" class="num"> gave {{ points(given(r, c.id)!) }}</span>
          </p>
          <p>{{ r.remarks[c.id] }}</p>
        </div>
      </div>
      <div v-for="q in own.questions" :key="q.id" class="criterion">
        <h3>{{ q.text }}</h3>
        <div v-for="r in own.received.filter(x => x.answers[q.id])" :key="r.id" class="said">
          <p class="from">{{ r.from }}</p>
          <p>{{ r.answers[q.id] }}</p>
        </div>
      </div>
      <div v-if="own.received.some(r => r.passages.length > 0)" class="criterion">
        <h3>In your text</h3>
        <template v-for="r in own.received" :key="r.id"
          ><div v-for="(p, i) in r.passages" :key="i" class="said">
            <p class="from">{{ r.from }}</p>
            <blockquote>{{ p.exact }}</blockquote>
            <p>{{ p.note }}</p>
          </div></template
        >
      </div>
      <div v-if="own.helpfulAsked || !teammates" class="back">
        <h3>Back to your readers <span>they see it without your name</span></h3>
        <div v-for="r in own.received" :key="r.id" class="one" :data-received="r.id">
          <p class="from">{{ r.from }}</p>
          <div
            v-if="own.helpfulAsked"
            v-roving
            class="help"
            role="radiogroup"
            :aria-label="`How helpful ${r.from} was`"
          >
            <PlainButton
              v-for="n in 5"
              :key="n"
              role="radio"
              :aria-checked="r.helpful === n"
              :title="HELP[n - 1]"
              :aria-label="HELP[n - 1]"
              :class="{ on: (r.helpful ?? 0) >= n }"
              @click="emit('helpful', r.id, r.helpful === n ? null : n)"
            /><span class="hint">{{ r.helpful ? HELP[r.helpful - 1] : 'how helpful?' }}</span>
          </div>
          <ReceivedAnswer :review="r" :activity-id="activityId" @answered="emit('answered')" />
        </div>
      </div>
    </template>
  </section>
</template>

<style scoped>
h3 {
  font: 600 0.875rem/1.3 var(--ui);
  display: flex;
  justify-content: space-between;
  gap: 10px;
  letter-spacing: 0;
}
h3 span {
  font-weight: 500;
  font-size: 0.78125rem;
  color: var(--ink-3);
}
.criterion {
  padding: 10px 0 12px;
  border-bottom: 1px solid var(--line-soft);
  display: grid;
  gap: 7px;
}
.scale {
  height: 14px;
  position: relative;
  margin: 0 7px;
  background: linear-gradient(var(--line), var(--line)) 0 50% / 100% 1px no-repeat;
}
.scale i.mine {
  background: var(--sheet);
  box-shadow: inset 0 0 0 2px var(--ember);
}
.scale i {
  position: absolute;
  width: 11px;
  height: 11px;
  border-radius: 50%;
  background: var(--k-review);
  top: 1px;
  transform: translateX(-50%);
  opacity: 0.75;
}
.said {
  border-left: 2px solid var(--line);
  padding-left: 12px;
}
.said p:not(.from),
blockquote {
  font: 400 0.96875rem/1.55 var(--read);
  max-width: 44em;
  white-space: pre-line;
}
blockquote {
  font-style: italic;
  color: var(--ink-2);
}
.from {
  font: 600 0.78125rem/1.5 var(--ui);
  color: var(--ink-2);
}
.from span {
  font-weight: 400;
  color: var(--ink-3);
}
.back {
  padding-top: 14px;
  display: grid;
  gap: 10px;
}
.one {
  display: grid;
  gap: 4px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--line-soft);
}
.help {
  display: flex;
  gap: 5px;
  align-items: center;
}
.help button {
  width: 15px;
  height: 15px;
  border: 1.5px solid var(--k-review);
  border-radius: 3px;
  background: none;
  cursor: pointer;
  padding: 0;
  transform: rotate(45deg) scale(0.8);
}
.help button.on {
  background: var(--k-review);
}
.help .hint {
  margin-left: 6px;
}
</style>
