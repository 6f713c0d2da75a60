<script setup lang="ts">
/** Two versions of one text side by side; nothing is lost until the writer chooses. */
defineProps<{ sentence: string; mine: string; theirs: string; theirName: string }>()
const emit = defineEmits<{ choose: [mine: boolean] }>()
</script>

<template>
  <section class="two" role="alertdialog" aria-label="Two texts">
    <p>{{ sentence }}</p>
    <div>
      <article>
        <h3>Here</h3>
        <p class="prose">{{ mine }}</p>
        <v-btn @click="emit('choose', true)">Keep this one</v-btn>
      </article>
      <article>
        <h3>{{ theirName }}</h3>
        <p class="prose">{{ theirs }}</p>
        <v-btn @click="emit('choose', false)">Keep that one</v-btn>
      </article>
    </div>
  </section>
</template>

<style scoped>
.two {
  background: var(--ember-soft);
  padding: 12px 14px;
  font-size: 0.84375rem;
  border-radius: var(--r);
}
.two > div {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  margin-top: 10px;
}
article {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--r);
  padding: 10px 12px;
  display: grid;
  gap: 8px;
  align-content: start;
  justify-items: start;
}
h3 {
  font-size: 0.78125rem;
  color: var(--ink-3);
  letter-spacing: 0;
}
.prose {
  font-size: 0.875rem;
  white-space: pre-line;
  max-height: 15em;
  overflow: auto;
}
</style>
