<script setup lang="ts">
/** A field of a few words that are read into a value; what cannot be read stays, with a sentence of how to write it. */
const value = defineModel<string>({ required: true }) // empty where none is chosen
const props = defineProps<{
  label: string
  /** The value as pages write it. */
  shown: string
  read: (text: string) => string | null
  refusal: string
  placeholder: string
  disabled?: boolean
  invalid?: boolean
}>()
const wrong = ref(false)
const id = useId()
// a value chosen elsewhere is right, whatever was typed before
watch(value, () => (wrong.value = false))
function type({ target }: Event) {
  const field = target as HTMLInputElement // its own event
  const typed = props.read(field.value)
  wrong.value = typed === null && field.value.trim() !== ''
  if (!typed) return
  value.value = typed
  void nextTick(() => (field.value = props.shown))
}
</script>

<template>
  <span class="typed-field">
    <input
      class="in num"
      type="text"
      autocomplete="off"
      :value="shown"
      :aria-label="label"
      :aria-invalid="wrong || invalid"
      :aria-describedby="wrong ? `${id}-wrong` : undefined"
      :disabled="disabled"
      :placeholder="placeholder"
      @change="type"
      @focus="($event.target as HTMLInputElement).select()"
    /><slot /><span v-if="wrong" :id="`${id}-wrong`" class="field-problem" role="alert">{{ refusal }}</span>
  </span>
</template>

<style scoped>
.typed-field {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
}
.field-problem {
  flex-basis: 100%;
}
</style>
