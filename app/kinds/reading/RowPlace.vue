<script setup lang="ts">
import { watchSight } from '~/kinds/reading/sight'
import { BELOW_PAPER } from '~/kinds/reading/useReadingSize'

/**
 * Where one page, section or stretch of a text stands, with its margin. What is in it is drawn when it is about to be read;
 * before and after, its room is kept. A text has hundreds of them: this is all there is of most.
 */
const props = defineProps<{
  number: number
  label: string
  /** Height of its text, in pixels, before it was drawn. */ height: number
  /** Of a page of a paper, whose height is right for good: height over width. */ aspect: number | null
  /** The window scrolls, not the text's column. */ narrow: boolean
  /** Drawn wherever one reads. */ always: boolean
}>()
const emit = defineEmits<{ near: [part: number] }>()
defineSlots<{
  default: (scope: { hold: (isHeld: boolean) => void; keepRoom: (margin: number) => void }) => unknown
}>()
const row = ref<HTMLElement | null>(null)
const inSight = ref(false)
const held = ref(false) // something is being written in it: it stays, however far one scrolls
const isDrawn = computed(() => inSight.value || held.value || props.always)
const marginHeight = ref(0)
const lastHeight = ref(0)
/** As a padding, whose per cents are of the column's width: a page is no higher than the column makes it, known or not. */
const room = computed(() => {
  if (props.aspect === null) return `${Math.max(lastHeight.value || props.height, marginHeight.value)}px`
  const byColumn = `calc(var(--column) * ${props.aspect} * var(--zoom, 1) + ${BELOW_PAPER}px)`
  return `max(min(${props.height}px, ${byColumn}), ${marginHeight.value}px)`
})
watch(isDrawn, now => {
  if (!now) lastHeight.value = row.value?.offsetHeight ?? 0
})
let stopSight: (() => void) | undefined
function watchRow() {
  stopSight?.()
  stopSight = watchSight(row.value!, props.narrow ? null : row.value!.closest('main'), isInSight => {
    inSight.value = isInSight
    if (isInSight) emit('near', props.number)
  })
}
// once the page knows whether it is narrow
onMounted(() => nextTick(() => row.value && watchRow()))
watch(() => props.narrow, watchRow, { flush: 'post' })
onBeforeUnmount(() => stopSight?.())
const hold = (isHeld: boolean) => {
  held.value = isHeld
}
const keepRoom = (margin: number) => {
  marginHeight.value = margin
}
defineExpose({ row })
</script>

<template>
  <section
    ref="row"
    class="row"
    :class="{ waiting: !isDrawn }"
    :style="isDrawn ? undefined : { paddingTop: room }"
    :data-row="number"
    :aria-label="label"
  >
    <slot v-if="isDrawn" :hold="hold" :keep-room="keepRoom" />
  </section>
</template>

<style scoped src="./row.css" />
