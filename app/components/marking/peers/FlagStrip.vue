<script setup lang="ts">
import type { ReviewFlag } from '#core/marking/peers/flagReviews'
import type { PeerAllocation, SettingAside } from '#shared/marking/peers'
import { flagSentence } from '~/composables/marking/peerWords'
import SetAsideForm from './SetAsideForm.vue'

/** One review somebody should look at: why, and what becomes of it. */
const props = defineProps<{
  allocation: PeerAllocation
  flags: readonly ReviewFlag[]
  name: string
  /** The reader's given name. */
  given: string
  leaves: string | null
  others: string
  hide: (text: string) => string
  /** Somebody has asked for it to be set aside, though nothing in it is flagged. */
  asked: boolean
}>()
const emit = defineEmits<{ keep: []; aside: [choice: SettingAside]; open: []; cancel: [] }>()
const asking = ref(false)
const ask = () => (asking.value = true)
function aside(choice: SettingAside) {
  asking.value = false
  emit('aside', choice)
}
const isSetAside = computed(() => props.allocation.setAside !== null)
const before = computed<SettingAside>(() => ({
  reason: props.allocation.setAside ?? '',
  countsAsDone: !props.allocation.notDone,
  tell: props.allocation.setAsideTold,
}))
const besides = computed(() => {
  const { notDone, setAsideTold } = props.allocation
  const done = notDone ? 'does not count as done' : 'counts as done'
  return `For ${props.given} it ${done}; ${setAsideTold ? 'they were told' : 'they were not told'}.`
})
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
  },
)
</script>

<template>
  <div class="strip" :class="{ out: isSetAside }" :data-review="allocation.id">
    <SetAsideForm
      v-if="isSetAside && asking"
      :given="given"
      :before="before"
      @aside="aside"
      @cancel="cancel"
    />
    <template v-else-if="isSetAside">
      <p>
        <b>{{ name }}’s review is set aside:</b> {{ allocation.setAside }}
        <span class="muted">{{ besides }}</span>
      </p>
      <span class="acts"
        ><v-btn @click="emit('open')">Count it again</v-btn><v-btn @click="ask">Change …</v-btn></span
      >
    </template>
    <template v-else>
      <p>
        <b>{{ name }}’s review:</b> {{ said }}
        <span v-if="leaves" class="muted">Set aside, with a reason, it leaves {{ leaves }}.</span>
      </p>
      <SetAsideForm v-if="asking" :given="given" @aside="aside" @cancel="cancel" />
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
</style>
