<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import { points } from '~/composables/marking/points'
import TextButton from '~/components/controls/TextButton.vue'

/** Points set by a marker in place of what was calculated, with the reason. */
const props = defineProps<{
  override: { points: number; reason: string } | null
  calculated: number | null
  max: number
  needsReason: boolean
}>()
const emit = defineEmits<{ set: [override: { points: number; reason: string } | null] }>()
const open = ref(false)
const text = ref('')
const reason = ref('')
const wrong = computed(() => {
  const n = Math.round(Number(text.value.replace(',', '.')) * 100)
  if (text.value.trim() === '' || !Number.isFinite(n)) return 'Write the points as a number.'
  if (n < 0 || n > props.max) return `Between 0 and ${points(props.max)}.`
  return props.needsReason && reason.value.trim() === '' ? 'Say why; the reason is kept with the mark.' : null
})
const tried = ref(false)
const field = ref<{ focus: () => void; select: () => void } | null>(null)
function begin() {
  open.value = true
  tried.value = false
  text.value = points(props.override?.points ?? props.calculated ?? 0)
  reason.value = props.override?.reason ?? ''
  void nextTick(() => {
    field.value?.focus()
    field.value?.select()
  })
}
function set() {
  tried.value = true
  if (wrong.value) return
  emit('set', { points: Math.round(Number(text.value.replace(',', '.')) * 100), reason: reason.value.trim() })
  open.value = false
}
</script>

<template>
  <form v-if="open" class="set" @submit.prevent="set">
    <label>Points<LineInput ref="field" v-model="text" class="in" data-points inputmode="decimal" /></label
    ><span class="hint"
      >of {{ points(max)
      }}<template v-if="calculated !== null">, in place of {{ points(calculated) }}</template></span
    >
    <LineInput
      v-model="reason"
      class="in why"
      aria-label="Why"
      :placeholder="needsReason ? 'why' : 'why, if you like'"
      maxlength="500"
    />
    <p v-if="tried && wrong" class="field-problem" role="alert">{{ wrong }}</p>
    <span class="acts"
      ><TextButton type="submit">set them</TextButton
      ><TextButton @click="open = false">cancel</TextButton></span
    >
  </form>
  <p v-else-if="override" class="line">
    Set to <b class="num">{{ points(override.points) }}</b><template v-if="override.reason"
      >: {{ override.reason }}</template
    >. <TextButton data-points @click="begin">change</TextButton>{{ ' '
    }}<TextButton @click="emit('set', null)">
      {{ calculated === null ? 'remove' : `back to ${points(calculated)}` }}
    </TextButton>
  </p>
  <p v-else class="line"><TextButton data-points @click="begin">set points</TextButton></p>
</template>

<style scoped>
.set {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
  font-size: 0.78125rem;
  margin-top: 8px;
}
.set label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.set .in {
  padding: 3px 7px;
  width: 5em;
}
.set .why {
  flex: 1 1 100%;
  width: auto;
}
.set .field-problem {
  flex: 1 1 100%;
}
.acts {
  display: flex;
  gap: 12px;
}
.line {
  font-size: 0.78125rem;
  margin-top: 8px;
  color: var(--ink-2);
}
</style>
