<script setup lang="ts">
import type { VersionLine } from '#shared/kinds/wiki/wiki'
import { useTimes } from '~/composables/planning/useTimes'
import PlainButton from '~/components/controls/PlainButton.vue'

/** Every version of a page on one line, the newest first; two of them are chosen to be compared. */
const props = defineProps<{ versions: readonly VersionLine[]; a: number; b: number }>()
const emit = defineEmits<{ choose: [a: number, b: number] }>()
const { shortDayTime } = useTimes()
/** A click sets the later one with the version before it; with Shift, or on the ring, the earlier one. */
function choose(number: number, event: MouseEvent | KeyboardEvent) {
  if (event.shiftKey && number !== props.b)
    emit('choose', Math.min(number, props.b), Math.max(number, props.b))
  else emit('choose', number - 1, number)
}
const move = (event: KeyboardEvent, number: number) => {
  const findStep = () => {
    if (event.key === 'ArrowDown') return -1
    if (event.key === 'ArrowUp') return 1
    return 0
  }
  const step = findStep()
  const to = props.versions.find(v => v.number === number + step)
  if (!step || !to) return
  event.preventDefault()
  choose(to.number, event)
  document.querySelector<HTMLElement>(`[data-version="${to.number}"]`)?.focus()
}
const summaryOf = (v: VersionLine) => v.summary || (v.number === 1 ? 'begins the page' : '')
function sideLetter(v: { readonly number: number }) {
  if (v.number === props.b) return 'B'
  if (v.number === props.a) return 'A'
  return ''
}
</script>

<template>
  <ol class="rail">
    <li
      v-for="v in versions"
      :key="v.number"
      :class="{ at: v.number === b, from: v.number === a, within: v.number > a && v.number <= b }"
    >
      <PlainButton
        :data-version="v.number"
        :aria-pressed="v.number === b"
        @click="choose(v.number, $event)"
        @keydown="move($event, v.number)"
      >
        <i class="dot" aria-hidden="true">{{ sideLetter(v) }}</i>
        <span class="who"
          ><span class="visually-hidden">Version </span
          ><b class="num">{{ v.number }} {{ v.author.isMe ? 'You' : v.author.givenName }}</b> ·
          {{ shortDayTime(v.savedAt) }}</span
        >
        <span class="what"
          ><template v-if="v.restores"
            ><em>back to {{ v.restores }}</em> </template
          ><b v-if="v.added > 0" class="plus num"
            >+{{ v.added }}<span class="visually-hidden"> words added</span></b
          >{{ ' '
          }}<b v-if="v.removed > 0" class="minus num"
            >−{{ v.removed }}<span class="visually-hidden"> removed</span></b
          >{{ ' ' }}<template v-if="!v.restores">{{ summaryOf(v) }}</template></span
        >
      </PlainButton>
      <PlainButton
        v-if="v.number !== a && v.number < b"
        class="set"
        :aria-label="`Compare from here, version ${v.number}`"
        @click="emit('choose', v.number, b)"
      >
        from here
      </PlainButton>
    </li>
  </ol>
</template>

<style scoped>
.rail {
  list-style: none;
  padding: 2px 0 10px;
}
li {
  position: relative;
}
li > button:first-child {
  display: grid;
  gap: 1px;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 4px 16px 5px 70px;
  cursor: pointer;
  font-size: 0.8125rem;
  line-height: 18px;
  color: var(--ink-2);
  min-height: 46px;
  align-content: center;
}
li > button:first-child:hover {
  background: var(--sunken);
}
.who b {
  color: var(--ink);
  font-weight: 600;
}
.what {
  font: 400 0.84375rem/18px var(--read);
  overflow-wrap: anywhere;
}
.what em {
  font-style: italic;
}
.plus {
  color: var(--moss);
  font: 600 0.78125rem/1 var(--ui);
}
.minus {
  color: var(--brick);
  font: 600 0.78125rem/1 var(--ui);
}
li::before {
  content: '';
  position: absolute;
  left: 37px;
  top: 0;
  bottom: 0;
  border-left: 1.5px solid var(--spine);
}
li.within::before {
  border-left: 4px solid var(--k-wiki);
  left: 36px;
}
li.at::before {
  top: 50%;
}
li.within + li.from::before {
  background: linear-gradient(var(--k-wiki), var(--k-wiki)) no-repeat left top / 4px 50%;
}
.dot {
  position: absolute;
  left: 32px;
  top: calc(50% - 6px);
  width: 12px;
  height: 12px;
  border-radius: 50%;
  background: var(--paper);
  border: 1.5px solid var(--spine);
  font: 650 0.6875rem/1 var(--ui);
  font-style: normal;
  z-index: 1;
}
.within .dot {
  border: 2px solid var(--k-wiki);
}
.at .dot,
.from .dot {
  left: 27px;
  top: calc(50% - 11px);
  width: 22px;
  height: 22px;
  background: var(--k-wiki);
  border-color: var(--k-wiki);
  color: var(--paper);
  display: grid;
  place-items: center;
}
.set {
  position: absolute;
  right: 12px;
  top: 5px;
  border: 0;
  background: var(--paper);
  font: 500 0.75rem/1.4 var(--ui);
  color: var(--harbour);
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  opacity: 0;
}
li:hover .set,
.set:focus-visible {
  opacity: 1;
}
</style>
