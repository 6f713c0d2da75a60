<script setup lang="ts">
import PlainCheckbox from '~/components/controls/PlainCheckbox.vue'
import PlainRadio from '~/components/controls/PlainRadio.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import type { PeerAllocation, PeerPerson, PeerWork, RepairView } from '#shared/marking/peers'
import { capital, inWords, plural } from '#core/language'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

/** Puts the deal right after people came late, left or do not review: shown first, then done. */
const props = defineProps<{
  activityId: string
  works: readonly PeerWork[]
  idle: readonly PeerPerson[]
  willing: number
  allocations: readonly PeerAllocation[]
  nameOf: (id: string) => string
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  done: [moves: { readonly add: RepairView['add']; readonly remove: RepairView['remove'] }]
}>()
const api = useApi()
const { busy, problem, send, attempt } = useSending()
const plan = shallowRef<RepairView | null>(null)
const out = reactive(new Set<string>())
const extra = ref<'none' | 'willing' | 'everyone'>('willing')
const isAsking = ref(false)
let asked = 0
let isChosen = false // somebody has said who may get one more
/**
 * What would be moved by what is chosen now; an answer overtaken by a later choice is let go. What was shown stays until
 * then, so that nothing jumps away under a pointer.
 */
async function propose() {
  const mine = ++asked
  isAsking.value = true
  const answer = await attempt(() =>
    api.call(peersEndpoints.repairReviews, {
      params: { activityId: props.activityId },
      body: { idle: [...out], extra: extra.value },
    }),
  )
  if (mine !== asked) return
  // what is proposed first leaves nobody without a reader, if that can be
  if (answer && answer.short.length > 0 && extra.value === 'willing' && !isChosen) {
    extra.value = 'everyone'
    return
  }
  plan.value = answer
  isAsking.value = false
}
watch(extra, propose)
watch(
  open,
  is => {
    if (is) {
      out.clear()
      isChosen = false
      extra.value = 'willing'
      plan.value = null
      void propose()
    }
  },
  { immediate: true },
)
const toggle = (id: string) => {
  if (!out.delete(id)) out.add(id)
  void propose()
}
const authorOf = (entryId: string) => props.nameOf(props.works.find(w => w.id === entryId)?.authorId ?? '')
const nothing = computed(() => plan.value !== null && plan.value.add.length + plan.value.remove.length === 0)
const nothingWords = computed(() =>
  plan.value!.short.length > 0
    ? 'Nothing can be moved, and works lack readers'
    : 'Every work has its readers; nothing would be moved',
)
const seenWords = ({ reviewerId, entryId }: RepairView['remove'][number]) =>
  props.allocations.some(a => a.reviewerId === reviewerId && a.entryId === entryId && a.openedAt !== null)
    ? 'looked at and not begun'
    : 'not opened yet'
/** What becomes of what somebody has who gives no more reviews. */
function fateOf(id: string): string {
  const theirs = props.allocations.filter(a => a.reviewerId === id && a.state !== 'in')
  const begun = theirs.filter(a => a.state === 'begun').length
  const looked = theirs.filter(a => a.state === 'owed' && a.openedAt !== null).length
  const free = theirs.length - begun
  const parts = [
    begun > 0 &&
      `${inWords(begun)} ${plural(begun, 'is', 'are')} begun and ${plural(begun, 'stays', 'stay')}`,
    free > 0 &&
      `${inWords(free)} ${plural(free, 'goes', 'go')} to others${looked > 0 ? `, ${inWords(looked)} of them looked at` : ''}`,
  ].filter(Boolean)
  return `${props.nameOf(id)}: of ${inWords(theirs.length)} not handed in, ${parts.join('; ')}.`
}
async function doIt() {
  const { add, remove, baseVersion } = plan.value!
  if (
    (await send(() =>
      api.call(peersEndpoints.setReviewPairs, {
        params: { activityId: props.activityId },
        body: { key: newKey(), baseVersion, add, remove },
      }),
    )) === null
  ) {
    void propose()
    return
  }
  open.value = false
  emit('done', { add, remove })
}
function extraWords(e: 'none' | 'willing' | 'everyone') {
  if (e === 'none') return 'nobody'
  if (e === 'willing') return `those who offered (${props.willing})`
  return 'anybody'
}
</script>

<template>
  <ModalDialog v-model="open" max-width="600" aria-label="Reassign reviewers">
    <div class="card dialog">
      <h2>Reassign reviewers</h2>
      <p class="muted">
        Every work gets its readers again, and as little as possible is touched. A review somebody has begun
        is never taken from them; what was only looked at goes to others once its reader gives no more.
      </p>
      <section v-if="idle.length > 0">
        <h3>Who gives no more reviews</h3>
        <p class="who">
          <label v-for="p in idle" :key="p.id"
            ><PlainCheckbox :checked="out.has(p.id)" @change="toggle(p.id)" /> {{ nameOf(p.id) }}</label
          >
        </p>
        <p v-for="p in idle.filter(i => out.has(i.id))" :key="p.id" class="hint">{{ fateOf(p.id) }}</p>
      </section>
      <section>
        <h3>Who may get one more</h3>
        <p class="who">
          <label v-for="e in ['none', 'willing', 'everyone'] as const" :key="e"
            ><PlainRadio v-model="extra" :value="e" @change="isChosen = true" /> {{ extraWords(e) }}</label
          >
        </p>
      </section>
      <section v-if="plan" aria-live="polite" :aria-busy="isAsking">
        <h3>
          <template v-if="nothing">{{ nothingWords }}</template>
          <template v-else>
            {{ capital(inWords(plan.add.length)) }} {{ plural(plan.add.length, 'review') }} assigned,
            {{ inWords(plan.remove.length) }} withdrawn; {{ plan.untouched }} stay
          </template>
        </h3>
        <ul v-if="!nothing">
          <li v-for="p in plan.add" :key="`a${p.reviewerId}${p.entryId}`">
            <b>{{ nameOf(p.reviewerId) }}</b> reads {{ authorOf(p.entryId) }}
          </li>
          <li v-for="p in plan.remove" :key="`r${p.reviewerId}${p.entryId}`" class="gone">
            <b>{{ nameOf(p.reviewerId) }}</b> no longer reads {{ authorOf(p.entryId) }}, {{ seenWords(p) }}
          </li>
        </ul>
        <p v-for="s in plan.short" :key="s.entryId" class="field-problem">
          {{ authorOf(s.entryId) }} would still lack {{ inWords(s.missing) }}
          {{ plural(s.missing, 'reader') }}: nobody has room. Let somebody have one more, or assign it by
          hand.
        </p>
      </section>
      <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
      <p class="acts">
        <v-btn class="main" :disabled="busy || isAsking || !plan || nothing" @click="doIt">Reassign</v-btn
        ><v-btn class="quiet" @click="open = false">Cancel</v-btn>
      </p>
    </div>
  </ModalDialog>
</template>

<style scoped>
h3 {
  font-size: 0.8125rem;
  letter-spacing: 0;
  margin-bottom: 4px;
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 5px 16px;
}
label {
  display: inline-flex;
  gap: 7px;
  align-items: center;
}
ul {
  list-style: none;
  max-height: 34vh;
  overflow: auto;
  border-top: 1px solid var(--line-soft);
}
li {
  padding: 4px 0;
  border-bottom: 1px solid var(--line-soft);
}
.gone {
  color: var(--ink-2);
}
</style>
