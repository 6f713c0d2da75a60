<script setup lang="ts">
import TextButton from '~/components/controls/TextButton.vue'
import { useNotices } from '~/stores/notices'

/** Recovery codes, the one time they are shown. */
const props = defineProps<{ readonly codes: readonly string[] }>()
defineEmits<{ kept: [] }>()
const notices = useNotices()
async function copy() {
  await navigator.clipboard.writeText(props.codes.join('\n'))
  notices.say('Copied. Keep the codes where you find them without your phone.')
}
</script>

<template>
  <div class="codes">
    <p>
      These recovery codes sign you in once each, beside your password, when you do not have your phone or
      your passkey. They are shown only now.
    </p>
    <ul aria-label="Recovery codes">
      <li v-for="c in codes" :key="c">{{ c }}</li>
    </ul>
    <p class="acts">
      <v-btn @click="copy">Copy the codes</v-btn>
      <TextButton @click="$emit('kept')">I have kept them</TextButton>
    </p>
  </div>
</template>

<style scoped>
.codes {
  display: grid;
  gap: 10px;
  width: 100%;
  border: 1px solid var(--line);
  background: var(--sheet);
  padding: 14px 18px;
}
.codes ul {
  list-style: none;
  columns: 2;
  max-width: 320px;
  font-family: ui-monospace, monospace;
}
</style>
