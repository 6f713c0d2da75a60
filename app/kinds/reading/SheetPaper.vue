<script setup lang="ts">
import type { RenderTask } from 'pdfjs-dist'
import type { OpenPaper } from '~/kinds/reading/usePaper'
import { useTermsStore } from '~/stores/terms'

/** One page of a paper: its picture, and over it its words, so that they can be chosen. It parts where a note is written. */
const props = defineProps<{
  open: OpenPaper
  number: number
  width: number
  aspect: number
  /** Of a page that is all picture: a note is put on an area of it. */ drawnOnly: boolean
}>()
const emit = defineEmits<{
  drawn: [root: HTMLElement]
  failed: []
  area: [area: { x: number; y: number; width: number; height: number }]
}>()
const canvas = ref<HTMLCanvasElement | null>(null)
const lower = ref<HTMLCanvasElement | null>(null)
const words = ref<HTMLElement | null>(null)
const composedNote = ref<HTMLElement | null>(null)
const height = computed(() => Math.round(props.width * props.aspect))
const scale = ref(1)
const gapAt = ref<number | null>(null)
const gapHeight = ref(0)
const terms = useTermsStore()
let task: RenderTask | null = null
let drawing = 0

async function draw() {
  const mine = ++drawing
  task?.cancel()
  try {
    const page = await props.open.paper.getPage(props.number)
    if (mine !== drawing || !canvas.value || !words.value) return
    const one = page.getViewport({ scale: 1 })
    scale.value = props.width / one.width
    const density = Math.min(3, window.devicePixelRatio || 1)
    const viewport = page.getViewport({ scale: scale.value * density })
    // drawn aside, so that the page that stands there stays until the next is ready
    const picture = document.createElement('canvas')
    picture.width = Math.round(viewport.width)
    picture.height = Math.round(viewport.height)
    task = page.render({
      canvas: null,
      canvasContext: picture.getContext('2d')!,
      viewport,
      background: 'rgba(0,0,0,0)',
      annotationMode: 0,
    })
    await task.promise
    if (mine !== drawing || !canvas.value || !words.value) return
    canvas.value.width = picture.width
    canvas.value.height = picture.height
    canvas.value.getContext('2d')!.drawImage(picture, 0, 0)
    const layer = document.createElement('div')
    await new props.open.pdfjs.TextLayer({
      textContentSource: page.streamTextContent({ includeMarkedContent: true, disableNormalization: true }),
      container: layer,
      viewport: page.getViewport({ scale: scale.value }),
    }).render()
    if (mine !== drawing || !words.value) return
    lightTerms(layer)
    words.value.replaceChildren(...layer.childNodes)
    words.value.style.setProperty('--min-font-size', layer.style.getPropertyValue('--min-font-size') || '1')
    emit('drawn', words.value)
    if (gapAt.value !== null) void nextTick(moveLower)
  } catch (error) {
    if (mine === drawing && (error as Error).name !== 'RenderingCancelledException') emit('failed')
  }
}
/** The seminar's terms as links in the words that lie over the picture: what is a word there is one here. */
function lightTerms(layer: HTMLElement) {
  const runs = [...layer.querySelectorAll<HTMLElement>('span:not(:has(span, br))')]
  const linked = terms.linkLines(runs.map(r => r.textContent))
  for (const [i, run] of runs.entries())
    if (run.childElementCount > 0 || linked[i]!.includes('<a ')) run.innerHTML = linked[i]!
}
onMounted(draw)
watch(
  () => terms.view,
  () => {
    if (!words.value || gapAt.value !== null) return
    lightTerms(words.value)
    emit('drawn', words.value)
  },
)
watch(() => [props.width, props.open], draw)
onBeforeUnmount(() => {
  drawing++
  task?.cancel()
  observer?.disconnect()
})

/** What stands below the gap moves down: the lower half of the picture, and the words that lie there. */
function moveLower() {
  if (!canvas.value || !words.value) return
  for (const span of words.value.querySelectorAll<HTMLElement>('span, br'))
    span.style.marginTop =
      gapAt.value !== null &&
      span.offsetTop - (Number.parseFloat(span.style.marginTop) || 0) >= gapAt.value - 3
        ? `${gapHeight.value}px`
        : ''
  if (!lower.value) return
  lower.value.width = canvas.value.width
  lower.value.height = canvas.value.height
  lower.value.getContext('2d')!.drawImage(canvas.value, 0, 0)
}
let observer: ResizeObserver | undefined
async function part(y: number): Promise<HTMLElement | null> {
  gapAt.value = Math.min(height.value, Math.max(0, y))
  await nextTick()
  observer?.disconnect()
  observer = new ResizeObserver(() => {
    gapHeight.value = composedNote.value?.offsetHeight ?? 0
    moveLower()
    if (words.value) emit('drawn', words.value)
  })
  if (composedNote.value) observer.observe(composedNote.value)
  return composedNote.value
}
function close() {
  observer?.disconnect()
  gapAt.value = null
  gapHeight.value = 0
  moveLower()
  if (words.value) emit('drawn', words.value)
}
defineExpose({ part, close, root: words })

// -- an area of a page that is all picture
const area = shallowRef<{ x: number; y: number; width: number; height: number } | null>(null)
let from: { x: number; y: number } | null = null
function point(event: PointerEvent) {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return {
    x: Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)),
    y: Math.min(1, Math.max(0, (event.clientY - box.top) / height.value)),
  }
}
function down(event: PointerEvent) {
  if (!props.drawnOnly || gapAt.value !== null) return
  from = point(event)
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent) {
  if (!from) return
  const to = point(event)
  area.value = {
    x: Math.min(from.x, to.x),
    y: Math.min(from.y, to.y),
    width: Math.abs(to.x - from.x),
    height: Math.abs(to.y - from.y),
  }
}
function up() {
  const chosen = area.value
  from = null
  area.value = null
  if (chosen && chosen.width > 0.01 && chosen.height > 0.01) emit('area', chosen)
}
</script>

<template>
  <div
    class="page"
    :class="{ picture: drawnOnly }"
    :style="{ width: `${width}px`, height: `${height + gapHeight}px`, '--total-scale-factor': scale }"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
  >
    <canvas
      ref="canvas"
      :style="{
        width: `${width}px`,
        height: `${height}px`,
        clipPath: gapAt === null ? undefined : `inset(0 0 ${height - gapAt}px 0)`,
      }"
    />
    <canvas
      v-if="gapAt !== null"
      ref="lower"
      aria-hidden="true"
      :style="{
        width: `${width}px`,
        height: `${height}px`,
        top: `${gapHeight}px`,
        clipPath: `inset(${gapAt}px 0 0 0)`,
      }"
    />
    <div ref="words" class="words" :style="{ height: `${height}px` }" />
    <i
      v-if="area"
      class="area"
      :style="{
        left: `${area.x * 100}%`,
        top: `${area.y * height}px`,
        width: `${area.width * 100}%`,
        height: `${area.height * height}px`,
      }"
    />
    <div
      v-if="gapAt !== null"
      ref="composedNote"
      class="gap-frame"
      data-not-text
      :style="{ top: `${gapAt}px` }"
    />
  </div>
</template>

<style scoped>
.page {
  position: relative;
  margin: 0 auto;
}
canvas {
  position: absolute;
  left: 0;
  top: 0;
  mix-blend-mode: multiply;
}
.words {
  position: absolute;
  left: 0;
  top: 0;
  right: 0;
  line-height: 1;
  --text-scale-factor: calc(var(--total-scale-factor) * var(--min-font-size));
  transform-origin: 0 0;
  text-align: initial;
}
.words :deep(span),
.words :deep(br) {
  color: transparent;
  position: absolute;
  white-space: pre;
  cursor: text;
  transform-origin: 0 0;
}
.words :deep(span:not(.markedContent)) {
  --font-height: 0;
  --scale-x: 1;
  --rotate: 0deg;
  font-size: calc(var(--text-scale-factor) * var(--font-height));
  transform: rotate(var(--rotate)) scaleX(var(--scale-x)) scale(calc(1 / var(--min-font-size)));
  z-index: 1;
}
.words :deep(.markedContent) {
  display: contents;
}
.words :deep(::selection) {
  background: color-mix(in srgb, var(--harbour) 26%, transparent);
  color: transparent;
}
.gap-frame {
  position: absolute;
  left: calc(-1 * var(--gutter, 0px));
  right: calc(-1 * var(--gutter, 0px));
  z-index: 6;
}
.picture {
  cursor: crosshair;
  touch-action: none;
}
.area {
  position: absolute;
  border: 2px solid var(--harbour);
  background: color-mix(in srgb, var(--harbour) 14%, transparent);
}
:root[data-theme='night'] canvas {
  filter: invert(0.9) hue-rotate(180deg);
  mix-blend-mode: screen;
}
@media (prefers-color-scheme: dark) {
  :root:not([data-theme]) canvas {
    filter: invert(0.9) hue-rotate(180deg);
    mix-blend-mode: screen;
  }
}
</style>
