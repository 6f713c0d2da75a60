<script setup lang="ts">
import ModalDialog from '~/components/controls/ModalDialog.vue'
/** Asked before an entry is opened to the class: what others will then be able to read. */
const open = defineModel<boolean>({ required: true })
defineProps<{ whose: string }>()
const emit = defineEmits<{ opened: [] }>()
</script>

<template>
  <ModalDialog v-model="open" max-width="480" aria-label="Open an entry to the class">
    <div class="card ask">
      <h2>Open this entry to the class?</h2>
      <p>
        Everyone in the seminar can then read it under {{ whose }} name, with all that you and staff have
        written under it. It can be closed again, but not unread.
      </p>
      <p class="end">
        <v-btn class="main" @click="emit('opened')">Open it</v-btn
        ><v-btn class="quiet" @click="open = false">Cancel</v-btn>
      </p>
    </div>
  </ModalDialog>
</template>

<style scoped>
.ask {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
}
.ask h2 {
  font: 600 1.125rem/1.3 var(--read);
}
.end {
  display: flex;
  gap: 10px;
}
</style>
