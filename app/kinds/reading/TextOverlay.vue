<script setup lang="ts">
import type { LaidLetter, LaidLine } from '~/kinds/reading/useTextOverlay'
import type { MarginNote } from '~/kinds/reading/useMargin'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Over the words of a page: what is lit, found, chosen and noted, a letter for each passage, and areas with a note. */
const props = defineProps<{
  glow: readonly LaidLine[]
  found: readonly LaidLine[]
  chosen: readonly LaidLine[]
  lines: readonly LaidLine[]
  letters: readonly LaidLetter[]
  areas: readonly MarginNote[]
  lit: string | null
  /** Size of the page, in pixels. */
  width: number
  height: number
}>()
const emit = defineEmits<{ pick: [ids: readonly string[]] }>()
const GLOW = 2 // pixels a lit line goes beyond its words
const boxOf = (l: LaidLine, beyond = 0) => ({
  left: `${l.left - beyond}px`,
  top: `${l.top}px`,
  width: `${l.width + 2 * beyond}px`,
  height: `${l.height}px`,
})
const underOf = (l: LaidLine) => ({
  left: `${l.left}px`,
  top: `${l.top + l.height}px`,
  width: `${l.width}px`,
})
function areaOf(note: MarginNote) {
  const { x, y, width, height } = note.c.note.area!
  return {
    left: `calc(50% - ${props.width / 2}px + ${x * props.width}px)`,
    top: `${y * props.height}px`,
    width: `${width * props.width}px`,
    height: `${height * props.height}px`,
  }
}
const letterLabel = ({ passage }: LaidLetter) =>
  `passage ${passage.letter}, ${passage.ids.length} ${passage.ids.length === 1 ? 'note' : 'notes'}`
</script>

<template>
  <div class="over">
    <i v-for="(b, i) in glow" :key="`g${i}`" class="glow" :style="boxOf(b, GLOW)" />
    <i v-for="(b, i) in found" :key="`f${i}`" class="sought" :style="boxOf(b)" />
    <i v-for="(b, i) in chosen" :key="`c${i}`" class="chosen" :style="boxOf(b)" />
    <i
      v-for="(b, i) in lines"
      :key="`l${i}`"
      class="under"
      :class="[`w${b.weight}`, { own: b.own }]"
      :style="underOf(b)"
    />
    <PlainButton
      v-for="l in letters"
      :key="`${l.passage.start}-${l.passage.end}`"
      class="letter"
      :class="{ own: l.passage.own }"
      :data-passage="l.passage.letter"
      :style="{ left: `${l.left}px`, top: `${l.top}px` }"
      :aria-label="letterLabel(l)"
      @click.stop="emit('pick', l.passage.ids)"
    >
      {{ l.passage.letter }}
    </PlainButton>
    <PlainButton
      v-for="n in areas"
      :key="n.c.id"
      class="patch"
      :class="{ own: n.c.author.isMe, lit: lit === n.c.id }"
      :aria-label="`area with a note by ${n.c.author.name}`"
      :style="areaOf(n)"
      @click.stop="emit('pick', [n.c.id])"
    />
  </div>
</template>

<style scoped>
.over {
  position: absolute;
  inset: 0;
  pointer-events: none;
  z-index: 3;
}
.over i {
  position: absolute;
}
.under {
  border-top: 1px solid var(--k-reading);
  transform: translateY(-3px);
}
.under.w2 {
  border-top-width: 2px;
}
.under.w3 {
  border-top-width: 3px;
}
.under.w4 {
  border-top-width: 4.5px;
}
.under.own {
  border-top: 2px dashed var(--harbour);
}
.chosen {
  background: color-mix(in srgb, var(--harbour) 16%, transparent);
  border-bottom: 3px solid var(--harbour);
}
.sought {
  background: color-mix(in srgb, var(--ember) 24%, transparent);
}
.glow {
  background: color-mix(in srgb, var(--k-reading) 15%, transparent);
  border-radius: 2px;
}
.letter {
  position: absolute;
  pointer-events: auto;
  transform: translate(-7px, -11px);
  isolation: isolate;
  width: 24px;
  height: 24px;
  border: 0;
  background: none;
  padding: 0;
  font: 650 0.6875rem/1.15 var(--ui);
  color: var(--k-reading);
  cursor: pointer;
}
.letter::before {
  content: '';
  position: absolute;
  inset: 5px 7px;
  z-index: -1;
  border-radius: 3px;
  background: color-mix(in srgb, var(--sheet) 72%, transparent);
}
.letter.own {
  color: var(--harbour);
}
.patch {
  position: absolute;
  pointer-events: auto;
  border: 2px solid var(--k-reading);
  background: color-mix(in srgb, var(--k-reading) 7%, transparent);
  cursor: pointer;
  border-radius: 2px;
  padding: 0;
}
.patch.own {
  border: 2px dashed var(--harbour);
}
.patch.lit {
  background: color-mix(in srgb, var(--k-reading) 20%, transparent);
}
</style>
