<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import Image from '@tiptap/extension-image'
import isSame from 'fast-deep-equal'
import { countWords } from '#core/contributing/measureText'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { LexiconSettingsBody } from '#shared/kinds/lexicon/settings'
import type { TermDetail } from '#shared/kinds/lexicon/term'
import type { WholeContribution } from '#shared/contributing/thread'
import { localDraft } from '~/autosave/localDraft'
import { ApiProblem, useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import { useThreadStore } from '~/stores/thread'
import RichEditor from './RichEditor.vue'
import TermFields from '~/kinds/lexicon/TermFields.vue'
import TwoTexts from './TwoTexts.vue'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/**
 * One's own text while it is changed; what was there is kept as it was until it is saved. What is typed is kept in this
 * browser until then, and is there again when one comes back to it.
 */
const props = defineProps<{
  contribution: WholeContribution
  titled?: boolean
  lexicon?: LexiconSettingsBody | null
}>()
const emit = defineEmits<{ done: []; away: [] }>()
const api = useApi()
const store = useThreadStore()
const { time } = useTimes()
const doc = shallowRef<RichNode | null>(null)
const title = ref('')
const term = shallowRef<TermDetail | null>(null)
const version = ref(0)
const busy = ref(false)
const problem = ref<string | null>(null)
const theirs = shallowRef<{ doc: RichNode; version: number } | null>(null)
const words = computed(() => (doc.value ? countWords(plainText(doc.value, { leaveOutQuotations: true })) : 0))
/** A text as it is changed, with the version it was begun from. */
interface Edited {
  readonly doc: RichNode
  readonly title: string
  readonly term: TermDetail | null
  readonly version: number
}
let stored: Edited | null = null
const isBroughtBack = ref(false) // what is shown was begun earlier and not saved
const kept = localDraft<Edited>(`edit:${props.contribution.id}`, {
  write: ({ value }) => value,
  read: written => ({ value: written as Edited, version: null }), // only this form is written under that name
})
const saysTheSame = (a: Edited, b: Edited) => isSame([a.doc, a.title, a.term], [b.doc, b.title, b.term])
const edited = (): Edited => ({
  doc: doc.value!,
  title: title.value,
  term: term.value,
  version: version.value,
})
function show(text: Edited) {
  doc.value = text.doc
  title.value = text.title
  term.value = text.term
  version.value = text.version
}
function startAnew() {
  kept.drop()
  isBroughtBack.value = false
  if (stored) show(stored)
}
watch([doc, title, term], () => {
  if (!stored) return
  if (saysTheSame(stored, edited())) kept.drop()
  else kept.put({ value: edited(), version: null })
})
onMounted(async () => {
  try {
    const own = await api.call(contributingEndpoints.readOwnText, {
      params: { contributionId: props.contribution.id },
    })
    stored = { doc: own.doc as RichNode, title: own.title ?? '', term: own.term, version: own.version } // as the editor made it
    const begun = (await kept.take({ value: stored, version: stored.version }))?.value ?? stored
    if (saysTheSame(begun, stored)) kept.drop()
    else isBroughtBack.value = true
    show(isBroughtBack.value ? begun : stored)
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
})
async function save() {
  if (busy.value || !doc.value) return
  busy.value = true
  problem.value = null
  try {
    await store.edit(
      props.contribution.id,
      doc.value,
      version.value,
      props.titled ? title.value.trim() || null : undefined,
      term.value ?? undefined,
    )
    kept.drop()
    emit('done')
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    if (error.code === 'changedMeanwhile')
      theirs.value = error.details.theirs as { doc: RichNode; version: number }
    else problem.value = error.at('doc') ?? error.at('term') ?? error.message
  } finally {
    busy.value = false
  }
}
function settle(mine: boolean) {
  version.value = theirs.value!.version
  if (!mine) doc.value = theirs.value!.doc
  theirs.value = null
}
</script>

<template>
  <div
    class="box"
    @keydown.ctrl.enter.prevent="save"
    @keydown.meta.enter.prevent="save"
    @keydown.esc="emit('away')"
  >
    <LineInput
      v-if="titled"
      v-model="title"
      class="title"
      maxlength="200"
      aria-label="Title"
      placeholder="Title"
    />
    <p v-if="isBroughtBack" class="back" role="status">
      This is what you had begun to change; it is not saved yet.
      <TextButton @click="startAnew">Start again from what is posted</TextButton>
    </p>
    <TermFields
      v-if="lexicon && doc"
      :term="term"
      :settings="lexicon"
      :activity-id="store.activity?.id ?? ''"
      :own="contribution.id"
      @write="term = $event"
    />
    <RichEditor
      v-if="doc"
      :doc="doc"
      label="Your text"
      autofocus
      formulas
      :more="[Image]"
      @write="doc = $event"
    />
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <TwoTexts
      v-if="theirs && doc"
      sentence="This was changed in another window meanwhile. Keep the text you want."
      :mine="plainText(doc)"
      :theirs="plainText(theirs.doc)"
      their-name="As it is now"
      @choose="settle"
    />
    <p class="done">
      <span class="num">{{ words }} words</span
      ><span v-if="contribution.changeUntil && !contribution.author.isStaff" class="hint"
        >can be changed until {{ time(contribution.changeUntil) }}</span
      ><span class="grow" /><v-btn class="quiet" @click="emit('away')">Cancel</v-btn
      ><v-btn class="main" :disabled="busy || words === 0" @click="save"
        >Save changes <kbd>Ctrl Enter</kbd></v-btn
      >
    </p>
  </div>
</template>

<style scoped>
.box {
  border: 1.5px solid var(--harbour);
  border-radius: var(--r);
  background: var(--sheet);
}
.title {
  width: 100%;
  border: 0;
  background: none;
  padding: 10px 14px 2px;
  font: 600 1.125rem/1.4 var(--read);
  color: var(--ink);
  outline: none;
}
.back {
  padding: 8px 14px;
  font-size: 0.8125rem;
  background: var(--ember-soft);
}
.done {
  display: flex;
  gap: 6px 14px;
  align-items: center;
  flex-wrap: wrap;
  padding: 5px 6px 6px 14px;
  font-size: 0.78125rem;
}
.field-problem {
  padding: 2px 14px 6px;
}
</style>
