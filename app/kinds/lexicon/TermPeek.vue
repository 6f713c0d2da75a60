<script setup lang="ts">
import type { TermCard } from '#shared/kinds/lexicon/lexicon'
import { useTermsStore } from '~/stores/terms'

/** The definition of a term, shown beside it while it is pointed at or has the focus, wherever on the page it stands. */
const terms = useTermsStore()
const route = useRoute()
const peek = useId()
const card = shallowRef<TermCard | null>(null)
const position = reactive({ left: 0, top: 0, above: false })
let anchor: HTMLElement | null = null
let timer: ReturnType<typeof setTimeout> | undefined
const WAIT = 180 // milliseconds of pointing before it is meant
const WIDTH = 340

const termAt = (target: EventTarget | null) =>
  target instanceof Element ? target.closest<HTMLElement>('a.term') : null

async function show(element: HTMLElement) {
  anchor = element
  let found: TermCard
  try {
    found = await terms.card(element.dataset.term!)
  } catch {
    return
  } // it has been taken out meanwhile: the word is a word
  if (anchor !== element || !element.isConnected) return
  const box = element.getClientRects()[0] ?? element.getBoundingClientRect()
  position.left = Math.max(8, Math.min(window.innerWidth - WIDTH - 8, box.left - 12))
  position.above = box.bottom > window.innerHeight - 240
  position.top = position.above ? box.top - 6 : box.bottom + 6
  card.value = found
  element.setAttribute('aria-describedby', peek)
}
function hide() {
  clearTimeout(timer)
  anchor?.removeAttribute('aria-describedby')
  anchor = null
  card.value = null
}
function over(event: Event) {
  const element = termAt(event.target)
  if (element === anchor && element) return
  if (event.target instanceof Element && event.target.closest('.term-peek')) return
  clearTimeout(timer)
  if (element) timer = setTimeout(() => void show(element), WAIT)
  else if (anchor && event.type !== 'focusin') timer = setTimeout(hide, WAIT)
  else if (anchor) hide()
}
/** A finger has nothing to point with: its first touch shows the definition, the second leads to it. */
function click(event: MouseEvent) {
  const element = termAt(event.target)
  if (!element || event.ctrlKey || event.metaKey || event.shiftKey) return
  event.preventDefault()
  if (anchor === element && card.value) {
    const to = terms.addressOf(element.dataset.term!)
    hide()
    void navigateTo(to)
  } else void show(element)
}
const key = (event: KeyboardEvent) => {
  if (event.key === 'Escape' && anchor) hide()
}
/** A link under the pointer is dragged as a whole: while it is pressed it is none, so that words are chosen from within a term. */
function press(event: PointerEvent) {
  const element = termAt(event.target)
  const href = element?.getAttribute('href')
  if (!element || !href || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey) return
  element.removeAttribute('href')
  const restore = () => {
    element.setAttribute('href', href)
    removeEventListener('pointerup', restore, true)
    removeEventListener('pointercancel', restore, true)
  }
  addEventListener('pointerup', restore, true)
  addEventListener('pointercancel', restore, true)
}
const LISTENERS = [
  ['pointerdown', press],
  ['mouseover', over],
  ['focusin', over],
  ['click', click],
  ['keydown', key],
  ['scroll', hide],
] as const
onMounted(() => {
  for (const [name, onEvent] of LISTENERS)
    document.addEventListener(name, onEvent as EventListener, name === 'scroll')
})
onBeforeUnmount(() => {
  hide()
  for (const [name, onEvent] of LISTENERS)
    document.removeEventListener(name, onEvent as EventListener, name === 'scroll')
})
watch(() => route.fullPath, hide)
</script>

<template>
  <aside
    v-if="card"
    :id="peek"
    class="term-peek"
    role="tooltip"
    :class="{ above: position.above }"
    :style="{ left: `${position.left}px`, top: `${position.top}px`, width: `${WIDTH}px` }"
  >
    <p class="head">
      <b>{{ card.term.term }}</b><span v-if="card.term.category">{{ card.term.category }}</span>
    </p>
    <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
    <div class="prose" dir="auto" v-html="card.html" />
    <p class="foot">
      {{ card.author.isMe ? 'You' : card.author.name
      }}<NuxtLink :to="terms.addressOf(card.id)" tabindex="-1" @click="hide">in the lexicon</NuxtLink>
    </p>
  </aside>
</template>

<style scoped>
.term-peek {
  position: fixed;
  z-index: 2400;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-top: 3px solid var(--k-lexicon);
  border-radius: var(--r);
  padding: 10px 14px 9px;
  box-shadow: 0 10px 30px rgb(0 0 0 / 0.16);
  max-width: calc(100vw - 16px);
}
.above {
  transform: translateY(-100%);
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
  font-size: 0.78125rem;
  color: var(--ink-3);
}
.head b {
  font: 600 1rem/1.3 var(--read);
  color: var(--ink);
}
.prose {
  font-size: 0.875rem;
  line-height: 1.5;
  max-height: 11em;
  overflow: hidden;
  margin-top: 2px;
}
.foot {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 0.75rem;
  color: var(--ink-3);
  margin-top: 6px;
}
</style>
