<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import type { WholeContribution } from '#shared/contributing/thread'

/** What is held for approval: its author sees that it waits, staff decide. */
defineProps<{ contribution: WholeContribution; isStaff: boolean }>()
const emit = defineEmits<{ approve: []; sendBack: [remark: string] }>()
const asking = ref(false)
const remark = ref('')
const remarkId = useId()
function sendBack() {
  emit('sendBack', remark.value)
  asking.value = false
}
</script>

<template>
  <div class="held">
    <template v-if="isStaff">
      <p>
        <b>{{ contribution.sentBack ? 'Sent back, not changed yet' : 'Held for approval' }}</b>: nobody but
        you and its author sees it.<template v-if="contribution.sentBack">
          You wrote: “{{ contribution.sentBack }}”</template
        >
      </p>
      <form v-if="asking" @submit.prevent="sendBack">
        <label :for="remarkId">What is to change?</label
        ><LineInput :id="remarkId" v-model="remark" class="in" maxlength="1000" required />
        <v-btn type="submit" :disabled="remark.trim() === ''">Send it back</v-btn
        ><v-btn class="quiet" @click="asking = false">Cancel</v-btn>
      </form>
      <p v-else class="acts">
        <v-btn class="main" @click="emit('approve')">Show it</v-btn
        ><v-btn class="quiet" @click="asking = true">Send it back …</v-btn>
      </p>
    </template>
    <p v-else-if="contribution.sentBack">
      <b>Wants a change before the others see it</b>: “{{ contribution.sentBack }}” Change it here; it goes
      back by itself.
    </p>
    <p v-else><b>Handed in</b>: the others see it once the instructor has read it. It counts as of now.</p>
  </div>
</template>

<style scoped>
.held {
  background: var(--ember-soft);
  border-radius: var(--r);
  padding: 8px 12px;
  margin-top: 8px;
  font-size: 0.8125rem;
  display: grid;
  gap: 8px;
}
.acts,
form {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
form .in {
  flex: 1;
  min-width: 12rem;
}
</style>
