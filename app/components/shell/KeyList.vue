<script setup lang="ts">
import CheckBox from '~/components/controls/CheckBox.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import KeySign from '~/components/shell/KeySign.vue'
import TextButton from '~/components/controls/TextButton.vue'
import { isBehindDialog, isWriting, pageKeys, useLetterKeys, useOwnKeys } from '~/composables/shell/keyList'
import { giveSign, namedBy, pressedFor } from '~/composables/shell/ownKeys'

/** The keys of the page, opened by the control in the top line or by "?": which act, and which sign is pressed for each. */
const open = defineModel<boolean>({ required: true })
const letters = useLetterKeys()
const own = useOwnKeys()
const told = ref('')
const NAMES: Readonly<Record<string, string>> = {
  'Ctrl+Enter': 'Ctrl Enter',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  'Alt+ArrowUp': 'Alt ↑',
  'Alt+ArrowDown': 'Alt ↓',
}
/** Keys of a line: digits in a row stand as their first and last. */
function shown(keys: string): readonly string[] {
  const all = keys.split(' ')
  const areDigits = all.length > 3 && all.every(key => /^\d$/.test(key))
  return areDigits ? [all[0]!, '–', all.at(-1)!] : all.map(key => NAMES[key] ?? key)
}
const lines = computed(() =>
  (pageKeys.value?.() ?? []).map(({ keys, does }) => ({ id: keys, keys: shown(keys), does })),
)
/** One sign by itself: what can be given to another key. Steps of a rubric are their numbers. */
const isSign = (line: { keys: readonly string[] }, key: string) =>
  key.length === 1 && !line.keys.includes('–')

function give(key: string, does: string, sign: string) {
  const other = sign === '' ? null : namedBy(own.value, sign)
  const onPage = lines.value.find(l => l.id.split(' ').includes(other ?? '') && other !== key)
  own.value = giveSign(own.value, key, sign)
  told.value = wordsOf(does, sign, onPage?.does)
}
function wordsOf(does: string, sign: string, exchangedWith: string | undefined): string {
  if (sign === '') return `The key for “${does}” is off.`
  if (exchangedWith) return `“${sign}” is for “${does}” now. Its old key is for “${exchangedWith}”.`
  return `“${sign}” is for “${does}” now.`
}
function reset() {
  own.value = {}
  told.value = 'Every key is as it came.'
}
watch(open, () => (told.value = ''))

function onKey(event: KeyboardEvent) {
  if (
    event.key !== '?' ||
    isWriting(event) ||
    event.altKey ||
    event.ctrlKey ||
    event.metaKey ||
    !letters.value
  )
    return
  if (!open.value && isBehindDialog()) return
  event.preventDefault()
  open.value = !open.value
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <ModalDialog v-model="open" max-width="460" aria-labelledby="keys-title">
    <div class="card keys">
      <h2 id="keys-title">Keys on this page</h2>
      <p v-if="lines.length === 0" class="hint">This page has no keys of its own.</p>
      <dl :class="{ off: !letters }">
        <template v-for="line in lines" :key="line.id"
          ><dt>
            <template v-for="k in line.keys" :key="k"
              ><span v-if="k === '–'">to</span
              ><KeySign
                v-else-if="isSign(line, k)"
                :sign="pressedFor(own, k)"
                :does="line.does"
                :disabled="!letters"
                @give="give(k, line.does, $event)"
              /><kbd v-else>{{ k }}</kbd></template
            >
          </dt>
          <dd>{{ line.does }}</dd></template
        >
        <dt><kbd>Ctrl K</kbd></dt>
        <dd>find anything, do anything</dd>
        <dt><kbd>?</kbd></dt>
        <dd>this list</dd>
      </dl>
      <p v-if="letters && lines.length > 0" class="hint change" role="status">
        {{ told || 'Choose a key and press the one you want instead; Delete switches it off.' }}
        <TextButton v-if="Object.keys(own).length > 0" @click="reset">Reset all keys</TextButton>
      </p>
      <CheckBox v-model="letters" class="letters">Use keys of a single letter or sign</CheckBox>
      <p class="hint">
        {{
          letters
            ? 'Switch them off if you speak to your computer or press keys by accident. This browser remembers it.'
            : 'They are off in this browser. Keys with Ctrl, the arrows, Enter and Esc go on working.'
        }}
      </p>
      <p class="acts"><v-btn class="quiet" @click="open = false">Close</v-btn></p>
    </div>
  </ModalDialog>
</template>

<style scoped>
.keys {
  display: flex;
  flex-direction: column;
  padding: 18px 22px 14px;
  max-height: calc(100dvh - 48px);
}
h2 {
  font: 600 1.0625rem/1.3 var(--read);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 16px;
  margin: 12px 0 0;
  align-items: baseline;
  overflow-y: auto;
  min-height: 90px;
}
dl.off kbd {
  text-decoration: line-through;
  color: var(--ink-3);
}
dt {
  display: flex;
  gap: 4px;
  align-items: baseline;
  justify-content: flex-end;
  color: var(--ink-3);
}
dd {
  margin: 0;
  color: var(--ink-2);
}
.change {
  margin: 10px 0 0;
}
.letters {
  margin: 12px 0 0;
  padding-top: 10px;
  border-top: 1px solid var(--line-soft);
}
.acts {
  display: flex;
  justify-content: flex-end;
  margin: 6px 0 0;
}
</style>
