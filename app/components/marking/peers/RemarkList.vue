<script setup lang="ts">
import type { RubricView } from '#shared/contributing/activity'
import type { PeerAllocation } from '#shared/marking/peers'
import { tenth } from '~/composables/marking/peerWords'

/** What readers said of a work, criterion by criterion, where they differ most first. */
const props = defineProps<{
  criteria: RubricView['criteria']
  questions: ReadonlyArray<{ readonly id: string; readonly text: string }>
  reviews: readonly PeerAllocation[]
  flagged: ReadonlySet<string>
  nameOf: (id: string) => string
  initialOf: (id: string) => string
  hide: (text: string) => string
}>()
const spread = (id: string) => {
  const v = props.reviews.flatMap(r => r.points[id] ?? [])
  return v.length > 1 ? Math.max(...v) - Math.min(...v) : 0
}
const ordered = computed(() =>
  [...props.criteria].sort((a, b) => spread(b.id) / b.max - spread(a.id) / a.max),
)
const hasRemark = (review: PeerAllocation, id: string) => (review.remarks[id] ?? '').trim() !== ''
/** Who gave points for a criterion and no remark, with what they gave. */
const silent = (id: string) =>
  props.reviews
    .filter(r => !hasRemark(r, id) && r.points[id] !== undefined)
    .map(r => `${props.nameOf(r.reviewerId)} ${tenth(r.points[id]!)}`)
    .join(' · ')
const withPassages = computed(() => props.reviews.filter(r => r.passages.length > 0))
</script>

<template>
  <div class="remarks">
    <section v-for="(c, i) in ordered" :key="c.id">
      <h3>{{ c.title }}<span v-if="i === 0">remarks, widest disagreement first</span></h3>
      <article
        v-for="r in reviews.filter(x => hasRemark(x, c.id))"
        :key="r.id"
        :class="{ out: r.setAside !== null }"
      >
        <i class="badge" :class="{ hot: flagged.has(r.id) }" aria-hidden="true">{{
          initialOf(r.reviewerId)
        }}</i>
        <div>
          <p class="by">
            <b>{{ nameOf(r.reviewerId) }}</b><template v-if="r.points[c.id] !== undefined">
              · gave <b class="num">{{ tenth(r.points[c.id]!) }}</b></template
            ><template v-if="r.helpful !== null"> · found helpful {{ r.helpful }}/5</template
            ><template v-if="r.setAside !== null"> · set aside</template>
          </p>
          <p class="text">{{ hide(r.remarks[c.id]!) }}</p>
        </div>
      </article>
      <p v-if="silent(c.id) !== ''" class="silent">Without a remark: {{ silent(c.id) }}.</p>
    </section>
    <section v-for="q in questions" :key="q.id">
      <h3>{{ q.text }}</h3>
      <article v-for="r in reviews.filter(x => x.answers[q.id])" :key="r.id">
        <i class="badge" aria-hidden="true">{{ initialOf(r.reviewerId) }}</i>
        <div>
          <p class="by">
            <b>{{ nameOf(r.reviewerId) }}</b>
          </p>
          <p class="text">{{ hide(r.answers[q.id]!) }}</p>
        </div>
      </article>
    </section>
    <section v-if="withPassages.length > 0">
      <h3>On passages</h3>
      <article v-for="r in withPassages" :key="r.id">
        <i class="badge" aria-hidden="true">{{ initialOf(r.reviewerId) }}</i>
        <div>
          <template v-for="(p, k) in r.passages" :key="k"
            ><blockquote>{{ hide(p.exact) }}</blockquote>
            <p class="text">{{ hide(p.note) }}</p></template
          >
        </div>
      </article>
    </section>
    <section v-if="reviews.some(r => r.private)">
      <h3>To you alone</h3>
      <article v-for="r in reviews.filter(x => x.private)" :key="r.id">
        <i class="badge" aria-hidden="true">{{ initialOf(r.reviewerId) }}</i>
        <div>
          <p class="by">
            <b>{{ nameOf(r.reviewerId) }}</b>
          </p>
          <p class="text">{{ hide(r.private) }}</p>
        </div>
      </article>
    </section>
    <section v-if="reviews.some(r => r.answerHtml)">
      <h3>What the author answered</h3>
      <article v-for="r in reviews.filter(x => x.answerHtml)" :key="r.id">
        <i class="badge" aria-hidden="true">{{ initialOf(r.reviewerId) }}</i>
        <div>
          <p class="by">
            to <b>{{ nameOf(r.reviewerId) }}</b>
          </p>
          <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
          <div class="prose" dir="auto" v-html="r.answerHtml!" />
        </div>
      </article>
    </section>
  </div>
</template>

<style scoped>
.silent {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.remarks {
  padding: 14px 24px 40px;
  display: grid;
  gap: 18px;
}
h3 {
  font: 600 0.84375rem/1.3 var(--ui);
  display: flex;
  justify-content: space-between;
  gap: 12px;
  letter-spacing: 0;
  margin-bottom: 8px;
}
h3 span {
  font-weight: 400;
  font-size: 0.75rem;
  color: var(--ink-3);
}
article {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: 0 9px;
  margin-bottom: 10px;
}
.out {
  opacity: 0.55;
}
.badge {
  width: 19px;
  height: 19px;
  border-radius: 50%;
  background: var(--k-review);
  color: var(--sheet);
  display: grid;
  place-items: center;
  font: 650 0.6875rem/1 var(--ui);
  font-style: normal;
}
.badge.hot {
  background: var(--sheet);
  color: var(--brick);
  box-shadow: inset 0 0 0 1.6px var(--brick);
}
.by {
  font-size: 0.78125rem;
  line-height: 19px;
  color: var(--ink-2);
}
.by b {
  color: var(--ink);
}
.text {
  font: 400 0.96875rem/1.5 var(--read);
  white-space: pre-line;
}
blockquote {
  font: italic 400 0.875rem/1.45 var(--read);
  color: var(--ink-2);
  border-left: 3px solid var(--cited);
  padding-left: 9px;
}
</style>
