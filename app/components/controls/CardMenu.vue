<script setup lang="ts">
/**
 * A small card beside what opens it. The keyboard goes into it, to what is chosen or to its first control; Esc and leaving
 * it close it and give the keyboard back; so does following a link in it.
 */
defineOptions({ inheritAttrs: false })
const open = defineModel<boolean>({ default: false })
withDefaults(defineProps<{ label: string; location?: 'bottom end' | 'bottom start' }>(), {
  location: 'bottom end',
})
const HAS_POPUP = 'dialog' as const
const CONTROLS = 'input:checked, input:not([type="hidden"]), select, textarea, button, a[href]'
const card = ref<HTMLElement | null>(null)
/** The card is drawn and then let in: until it is, nothing in it takes the keyboard. */
function enter(framesLeft: number) {
  const inside = card.value
  if (!open.value || inside?.contains(document.activeElement)) return
  const first =
    inside?.querySelector<HTMLElement>('[data-begin], input:checked') ??
    inside?.querySelector<HTMLElement>(CONTROLS)
  first?.focus({ preventScroll: true })
  if (framesLeft > 0) requestAnimationFrame(() => enter(framesLeft - 1))
}
const FRAMES = 20
watch(open, isOpen => {
  if (isOpen) requestAnimationFrame(() => enter(FRAMES))
})
const close = () => {
  open.value = false
}
/** What the tabulator stops at in the card: of radio buttons of one name, one. */
function stops(): HTMLElement[] {
  const all = [...(card.value?.querySelectorAll<HTMLElement>(CONTROLS) ?? [])].filter(
    e => e.tabIndex >= 0 && !e.matches(':disabled') && e.offsetParent !== null,
  )
  const seen = new Set<string>()
  return all.filter(e => {
    if (!(e instanceof HTMLInputElement) || e.type !== 'radio') return true
    const isFirst = !seen.has(e.name)
    seen.add(e.name)
    return isFirst
  })
}
/** Leaving the card by the tabulator closes it and goes on from what opened it. */
function onTab(event: KeyboardEvent) {
  const all = stops()
  const edge = event.shiftKey ? all[0] : all.at(-1)
  const { target } = event
  const areRadios =
    edge instanceof HTMLInputElement && target instanceof HTMLInputElement && edge.type === 'radio'
  if (target !== edge && !(areRadios && target.name === edge.name)) return
  leave()
}
/**
 * Closes the card and gives the keyboard back. Esc comes here, and not to the menu: that one would let a press go by while
 * a card above it has only just closed.
 */
function leave() {
  const overlay = card.value?.closest('.v-overlay__content')?.id
  close()
  document.querySelector<HTMLElement>(`[aria-controls="${overlay ?? ''}"]`)?.focus({ preventScroll: true })
}
function afterClick({ target }: MouseEvent) {
  if (target instanceof Element && target.closest('a[href]')) close()
}
</script>

<template>
  <v-menu v-model="open" :location="location" :close-on-content-click="false" :offset="6">
    <template #activator="{ props: opener }"
      ><slot name="opener" :opener="{ ...opener, 'aria-haspopup': HAS_POPUP }"
    /></template>
    <div
      ref="card"
      class="card"
      role="dialog"
      :aria-label="label"
      v-bind="$attrs"
      @click="afterClick"
      @keydown.tab="onTab"
      @keydown.esc.stop="leave"
    >
      <slot :close="close" />
    </div>
  </v-menu>
</template>
