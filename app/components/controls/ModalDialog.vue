<script setup lang="ts">
/**
 * A dialog above the page. The keyboard goes into it, stays in it, and is given back when it closes: to what had the focus,
 * or to what opened the menu it was chosen from. Its name and width go to the dialog.
 */
defineOptions({ inheritAttrs: false })
const open = defineModel<boolean>({ required: true })
let before: Element | null = null
watch(
  open,
  isOpen => {
    if (isOpen && import.meta.client) before = document.activeElement
  },
  { immediate: true, flush: 'sync' },
)

/** Somewhere that is still there to be focused. */
function landing(): HTMLElement | null {
  const menu = before?.closest('.v-overlay__content')?.id
  const opener = menu ? document.querySelector(`[aria-controls="${menu}"]`) : null
  const isThere = before instanceof HTMLElement && before.isConnected && before.offsetParent !== null
  if (isThere && before !== document.body) return before as HTMLElement
  return (opener ?? document.getElementById('page')) as HTMLElement | null
}

function giveBack() {
  // whoever went somewhere meanwhile stays there
  const at = document.activeElement
  if (at && at !== document.body && at.isConnected && !at.closest('.v-dialog')) return
  landing()?.focus({ preventScroll: true })
}
onBeforeUnmount(() => {
  if (open.value) void nextTick(giveBack)
})
</script>

<template>
  <v-dialog v-bind="$attrs" v-model="open" @after-leave="giveBack"><slot /></v-dialog>
</template>
