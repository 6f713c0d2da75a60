<script setup lang="ts">
import TextButton from '~/components/controls/TextButton.vue'

/** The end of a form that was opened: what no field is to blame for, sending it, and closing it again. */
defineProps<{
  readonly label: string
  readonly busy: boolean
  readonly problem: string | null
  readonly problems: Readonly<Record<string, string>> // those stand at their fields
}>()
defineEmits<{ cancel: [] }>()
</script>

<template>
  <div class="foot">
    <p v-if="problem && Object.keys(problems).length === 0" class="field-problem" role="alert">
      {{ problem }}
    </p>
    <p class="acts">
      <v-btn class="main" type="submit" :disabled="busy">{{ label }}</v-btn>
      <TextButton @click="$emit('cancel')">Cancel</TextButton>
    </p>
  </div>
</template>

<style scoped>
.foot {
  display: grid;
  gap: 14px;
}
</style>
