<script setup lang="ts">
import type { Focusable } from '~/components/controls/focusable'
import LineInput from '~/components/controls/LineInput.vue'
import type { ReviewFlag } from '#core/marking/peers/flagReviews'
import type { PeerAllocation } from '#shared/marking/peers'
import { flagSentence } from '~/composables/marking/peerWords'

/** One review somebody should look at: why, and what becomes of it. */
const props = defineProps<{
  allocation: PeerAllocation
  flags: readonly ReviewFlag[]
  name: string
  leaves: string | null
  others: string
  hide: (text: string) => string
  /** Somebody has asked for it to be set aside, though nothing in it is flagged. */
  asked: boolean
}>()
const emit = defineEmits<{ keep: []; aside: [reason: string]; open: []; cancel: [] }>()
const asking = ref(false)
const reason = ref('')
const field = ref<Focusable | null>(null)
const problem = ref(false)
function ask() {
  asking.value = true
  void nextTick(() => field.value?.focus())
}
function aside() {
  problem.value = reason.value.trim() === ''
  if (!problem.value) {
    emit('aside', reason.value.trim())
    asking.value = false
  }
}
function cancel() {
  asking.value = false
  emit('cancel')
}
const said = computed(() => {
  if (props.flags.length > 0) return props.hide(props.flags.map(f => flagSentence(f, props.others)).join(' '))
  return props.allocation.kept ? 'looked at, and it counts.' : 'nothing in it is flagged.'
})
watch(
  () => props.asked,
  is => {
    if (is) ask()
  },
  { immediate: true },
)
watch(
  () => props.allocation.id,
  () => {
    asking.value = false
    reason.value = ''
  },
)
</script>

<template>
  <div class="strip" :class="{ out: allocation.setAside !== null }" :data-review="allocation.id">
    <template v-if="allocation.setAside !== null">
      <p>
        <b>{{ name }}’s review is set aside:</b> {{ allocation.setAside }}
      </p>
      <v-btn @click="emit('open')">Count it again</v-btn>
    </template>
    <template v-else>
      <p>
        <b>{{ name }}’s review:</b> {{ said }}
        <span v-if="leaves" class="muted">Set aside, with a reason, it leaves {{ leaves }}.</span>
      </p>
      <form v-if="asking" class="why" @submit.prevent="aside" @keydown.esc="cancel">
        <LineInput
          ref="field"
          v-model="reason"
          class="in"
          maxlength="500"
          placeholder="Why it does not count"
          aria-label="Why it does not count"
          :aria-invalid="problem"
        />
        <v-btn class="main" type="submit">Set it aside</v-btn
        ><v-btn class="quiet" @click="cancel">Cancel</v-btn>
      </form>
      <span v-else class="acts"
        ><v-btn @click="emit('keep')">Keep</v-btn><v-btn @click="ask">Set aside …</v-btn></span
      >
    </template>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  justify-content: space-between;
  background: color-mix(in srgb, var(--sunken) 60%, var(--sheet));
  border-left: 4px solid var(--brick);
  padding: 10px 24px 10px 20px;
  border-bottom: 1px solid var(--line-soft);
  font-size: 0.84375rem;
  line-height: 1.45;
}
.strip.out {
  border-left-color: var(--spine);
}
p {
  flex: 1 1 260px;
}
.acts {
  display: flex;
  gap: 10px;
}
.why {
  display: flex;
  gap: 8px;
  flex: 1 1 100%;
  flex-wrap: wrap;
}
.why .in {
  flex: 1 1 220px;
}
</style>
