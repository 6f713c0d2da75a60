<script setup lang="ts">
import PlainButton from '~/components/controls/PlainButton.vue'
import { capital, inWords } from '#core/language'

/** Whether students see their reviews already, or only once the instructor has looked; what came in later waits by itself. */
const props = defineProps<{ releasedAt: string | null; waiting: number; later: string }>()
const emit = defineEmits<{ release: [released: boolean]; late: [] }>()
const waitingWords = computed(() =>
  props.waiting === 1
    ? 'One review came in after the release and waits for you.'
    : `${capital(inWords(props.waiting))} reviews came in after the release and wait for you.`,
)
</script>

<template>
  <b>Release to students</b
  ><span class="two"
    ><PlainButton
      :class="{ on: releasedAt === null }"
      :aria-pressed="releasedAt === null"
      @click="emit('release', false)"
    >
      {{ later }}</PlainButton
    ><PlainButton
      :class="{ on: releasedAt !== null }"
      :aria-pressed="releasedAt !== null"
      @click="emit('release', true)"
    >
      {{ releasedAt ? 'released' : 'now' }}
    </PlainButton></span
  >
  <p v-if="waiting > 0" class="late">
    {{ waitingWords }} <v-btn @click="emit('late')">Release {{ waiting === 1 ? 'it' : 'them' }}, too</v-btn>
  </p>
</template>

<style scoped>
.two {
  display: flex;
  border: 1px solid var(--line);
  border-radius: var(--r);
  overflow: hidden;
}
.two button {
  flex: 1 1 auto;
  border: 0;
  background: var(--sheet);
  padding: 7px 11px;
  font: 600 0.8125rem/1.1 var(--ui);
  cursor: pointer;
  color: var(--ink);
}
.two .on {
  background: var(--harbour);
  color: var(--on-harbour);
}
.late {
  font-size: 0.8125rem;
  line-height: 1.5;
}
</style>
