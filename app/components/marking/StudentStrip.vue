<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import { useLetterKeys } from '~/composables/shell/keyList'
import type { DeskStudent } from '#shared/marking/desk'
import { STANDING_WORDS } from '~/composables/planning/standingWords'
import { vRoving } from '../controls/vRoving'
import FillMark from './FillMark.vue'
import PlainButton from '~/components/controls/PlainButton.vue'

const props = defineProps<{
  students: readonly DeskStudent[]
  current: string | null
  /** Whose marks are in this browser only. */
  unsaved: ReadonlySet<string>
}>()
const letters = useLetterKeys()
const emit = defineEmits<{ choose: [id: string] }>()
const row = ref<HTMLElement | null>(null)
async function showCurrent() {
  await nextTick()
  const on = row.value?.querySelector<HTMLElement>('[aria-current="true"]')
  if (row.value && on) row.value.scrollLeft = on.offsetLeft - row.value.clientWidth / 2 + on.clientWidth / 2
}
onMounted(showCurrent)
watch(() => props.current, showCurrent)
</script>

<template>
  <nav class="strip" aria-label="Students">
    <div ref="row" v-roving class="row" role="toolbar" aria-label="Students: arrows go from one to the next">
      <PlainButton
        v-for="s in students"
        :key="s.id"
        :class="{ on: s.id === current, unsaved: unsaved.has(s.id) }"
        :aria-current="s.id === current"
        :aria-label="`${s.name}, ${STANDING_WORDS[s.standing]}${unsaved.has(s.id) ? ', not saved' : ''}`"
        @click="emit('choose', s.id)"
      >
        <FillMark :standing="s.standing" :named="false" />{{ s.id === current ? s.name : s.familyName }}
      </PlainButton>
    </div>
    <span v-if="letters" class="keys"><KeyHint of="[" /> <KeyHint of="]" /> student</span>
  </nav>
</template>

<style scoped>
.strip {
  height: 52px;
  flex: none;
  display: flex;
  align-items: center;
  padding: 0 20px 0 14px;
  border-bottom: 1px solid var(--line);
  gap: 14px;
}
.row {
  display: flex;
  gap: 3px;
  overflow-x: auto;
  scrollbar-width: none;
  flex: 1;
  padding: 6px 4px;
  position: relative;
  mask-image: linear-gradient(to right, transparent 0, #000 12px calc(100% - 24px), transparent);
}
button {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 6px 9px;
  border: 0;
  border-radius: 18px;
  font-size: 0.78125rem;
  color: var(--ink-2);
  white-space: nowrap;
  background: none;
  cursor: pointer;
}
button:hover {
  background: var(--sunken);
}
button:focus-visible {
  border-radius: 18px;
}
.on {
  background: var(--sheet);
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 0 0 1.5px var(--harbour);
}
/* a mark that is in this browser only */
.unsaved {
  color: var(--brick);
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.keys {
  font-size: 0.71875rem;
  color: var(--ink-3);
  white-space: nowrap;
}
@media (max-width: 700px) {
  .keys {
    display: none;
  }
}
@media (forced-colors: active) {
  [aria-current='true'] {
    outline: 2px solid CanvasText;
    outline-offset: -2px;
  }
}
</style>
