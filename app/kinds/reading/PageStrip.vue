<script setup lang="ts">
import type { PartView } from '#shared/kinds/reading/reading'
import type { MarginNote } from '~/kinds/reading/useMargin'
import PlainButton from '~/components/controls/PlainButton.vue'

/** The pages of a text, each with its line of talk: where on it notes stand, how many, and one's own below. */
const props = defineProps<{
  parts: readonly PartView[]
  notes: ReadonlyMap<number, readonly MarginNote[]>
  from: number
  to: number | null
  here: number
  word: string
  closedPages: ReadonlySet<number>
}>()
const emit = defineEmits<{ go: [part: number] }>()
const BINS = 15
const WIDTH = 78
const x = (bin: number) => Math.round((((bin + 0.5) * WIDTH) / BINS) * 10) / 10
const list = ref<HTMLElement | null>(null)
const isSet = (n: number) => n >= props.from && (props.to === null || n <= props.to)
const lines = computed(() =>
  props.parts.map(p => {
    const bins = Array.from({ length: BINS }, () => 0)
    const own = new Set<number>()
    const here = props.notes.get(p.number) ?? []
    for (const { c } of here) {
      const findShare = () => {
        if (c.note.at) return (c.note.at.start - p.start) / Math.max(1, p.end - p.start)
        if (c.note.area) return c.note.area.y
        return 0
      }
      const share = findShare()
      const bin = Math.min(BINS - 1, Math.max(0, Math.floor(share * BINS)))
      bins[bin]!++
      if (c.author.isMe) own.add(bin)
    }
    // all strokes of a page in one path: a long text has thousands
    const talk = bins.map((n, bin) => (n > 0 ? `M${x(bin)} 17v${-Math.min(15, 2 + n * 1.95)}` : '')).join('')
    const ownMarks = [...own].map(bin => `M${x(bin) - 2.2} 20.2h4.4`).join('')
    return { part: p, talk, own: ownMarks, count: here.length }
  }),
)
watch(
  () => props.here,
  here => {
    const item = list.value?.querySelector(`[data-strip="${here}"]`)
    if (list.value && item) scrollWithin(list.value, item)
  },
)
/** Scrolls the list alone: where it sticks to the window's edge, the browser would take the window along. */
function scrollWithin(frame: Element, item: Element) {
  const [edges, box] = [frame.getBoundingClientRect(), item.getBoundingClientRect()]
  const by = (from: number, to: number, low: number, high: number) =>
    Math.min(0, from - low) + Math.max(0, to - high)
  frame.scrollLeft += by(box.left, box.right, edges.left, edges.right)
  frame.scrollTop += by(box.top, box.bottom, edges.top, edges.bottom)
}
function notesWords(page: number, count: number) {
  if (props.closedPages.has(page)) return 'others’ notes once you have one here'
  return `${count} ${count === 1 ? 'note' : 'notes'}`
}
</script>

<template>
  <nav class="strip" aria-label="Pages">
    <ol ref="list">
      <li
        v-for="{ part, talk, own, count } in lines"
        :key="part.number"
        :data-strip="part.number"
        :class="{
          set: isSet(part.number),
          first: part.number === from || part.number === 1,
          last: part.number === (to ?? parts.length),
        }"
      >
        <h2 v-if="part.heading || part.number === 1">
          {{ part.heading ?? '' }} <span v-if="part.number === 1">notes</span>
        </h2>
        <PlainButton
          class="pg"
          :class="{ here: part.number === here }"
          :aria-current="part.number === here ? 'page' : undefined"
          @click="emit('go', part.number)"
        >
          <span class="visually-hidden"
            >{{ word }} {{ part.label }}, {{ notesWords(part.number, count) }}</span
          >
          <b class="num" aria-hidden="true">{{ part.label }}</b>
          <svg height="22" preserveAspectRatio="none" :viewBox="`0 0 ${WIDTH} 22`" aria-hidden="true">
            <path :d="`M0 17.5H${WIDTH}`" class="ground" />
            <path v-if="talk" class="talk" :d="talk" />
            <path v-if="own" class="own" :d="own" />
          </svg>
          <em class="num" aria-hidden="true">{{ closedPages.has(part.number) ? '·' : count }}</em>
        </PlainButton>
      </li>
    </ol>
    <slot />
  </nav>
</template>

<style scoped>
.strip {
  border-right: 1px solid var(--line);
  padding: 12px 0 10px 20px;
  font-size: 0.78125rem;
  display: flex;
  flex-direction: column;
  min-height: 0;
  gap: 10px;
}
ol {
  list-style: none;
  overflow-y: auto;
  flex: 0 1 auto;
  min-height: 60px;
  padding-left: 12px;
  margin-left: -12px;
}
li {
  position: relative;
}
h2 {
  font: 600 0.75rem/1.25 var(--ui);
  color: var(--ink-2);
  padding: 7px 8px 2px 0;
  display: flex;
  justify-content: space-between;
  gap: 6px;
}
h2 span {
  font-weight: 500;
  color: var(--ink-3);
}
.pg {
  display: grid;
  grid-template-columns: minmax(24px, max-content) minmax(0, 1fr) 30px;
  gap: 0 6px;
  align-items: center;
  width: 100%;
  height: 28px;
  color: var(--ink-3);
  background: none;
  border: 0;
  padding: 0;
  cursor: pointer;
  text-align: left;
  font: inherit;
  border-radius: 0;
  white-space: nowrap;
}
.pg b {
  font-weight: 600;
  overflow: hidden;
  text-overflow: clip;
}
.pg em {
  font-style: normal;
  text-align: right;
  padding-right: 10px;
}
svg {
  width: 100%;
}
.ground {
  stroke: var(--spine);
}
.talk {
  stroke: var(--ink-3);
  stroke-width: 2.6;
  opacity: 0.7;
}
.own {
  stroke: var(--harbour);
  stroke-width: 2.2;
}
.set .pg {
  color: var(--ink);
}
.set .pg em {
  font-weight: 600;
}
.set .talk {
  stroke: var(--k-reading);
  opacity: 1;
}
.set::before {
  content: '';
  position: absolute;
  left: -12px;
  top: 0;
  bottom: 0;
  width: 6px;
  border-left: 2px solid var(--k-reading);
}
.set.first::before {
  border-top: 2px solid var(--k-reading);
  top: 4px;
}
.set.last::before {
  border-bottom: 2px solid var(--k-reading);
  bottom: 3px;
}
.pg.here {
  background: var(--sheet);
  box-shadow:
    inset 0 1px var(--line),
    inset 0 -1px var(--line);
  margin-left: -4px;
  padding-left: 4px;
  width: calc(100% + 4px);
}
@media (min-width: 1001px) {
  /* a long text has hundreds of pages: those out of sight are not laid out */
  .pg {
    content-visibility: auto;
  }
}
@media (max-width: 1000px) {
  .strip {
    border-right: 0;
    border-bottom: 1px solid var(--line);
    padding: 6px 14px;
  }
  ol {
    display: flex;
    gap: 4px;
    overflow-x: auto;
    min-height: 0;
  }
  li h2,
  .set::before {
    display: none;
  }
  li {
    flex: none;
  }
  .pg {
    grid-template-columns: max-content max-content;
    width: auto;
    height: 34px;
    padding: 0 8px;
    gap: 5px;
    border: 1px solid transparent;
  }
  .set .pg {
    border-bottom-color: var(--k-reading);
  }
  .pg svg {
    display: none;
  }
  .pg b {
    font-size: 0.875rem;
  }
  .pg em,
  .set .pg em {
    padding: 0;
    font-weight: 400;
    font-size: 0.6875rem;
    color: var(--ink-3);
  }
  .pg.here {
    margin: 0;
    width: auto;
  }
}
</style>
