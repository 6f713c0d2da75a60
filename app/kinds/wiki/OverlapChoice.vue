<script setup lang="ts">
import type { Choice } from '#core/kinds/wiki/mergePages'
import type { Overlaps } from '#shared/kinds/wiki/wiki'
import { inWords, listed, plural } from '#core/language'
import PlainButton from '~/components/controls/PlainButton.vue'
import TextButton from '~/components/controls/TextButton.vue'

/** Places that two writers changed differently, side by side: the writer chooses for each; nothing is dropped by itself. */
const props = defineProps<{ overlaps: Overlaps }>()
const choices = defineModel<Choice[]>({ required: true })
const pick = (i: number, choice: Choice) => {
  const next = [...choices.value]
  next[i] = choice
  choices.value = next
}
const all = (choice: Choice) => {
  choices.value = props.overlaps.overlaps.map(() => choice)
}
</script>

<template>
  <section class="overlaps" role="group" aria-label="Changed by both">
    <p class="say">
      <b>{{ listed(overlaps.by) }}</b> saved this page while you wrote. Everything that could be joined is
      joined; {{ inWords(overlaps.overlaps.length) }} {{ plural(overlaps.overlaps.length, 'place') }} you both
      changed.
      <span v-if="overlaps.overlaps.length > 1"
        >All at once: <TextButton @click="all('mine')">mine</TextButton>{{ ' '
        }}<TextButton @click="all('theirs')">theirs</TextButton>{{ ' '
        }}<TextButton @click="all('both')">both</TextButton></span
      >
    </p>
    <div v-for="(o, i) in overlaps.overlaps" :key="i" class="overlap">
      <p v-if="o.was" class="was">It said: “{{ o.was }}”</p>
      <div class="sides">
        <PlainButton
          :class="{ on: choices[i] === 'mine' || choices[i] === 'both' }"
          :aria-pressed="choices[i] === 'mine'"
          @click="pick(i, 'mine')"
        >
          <em>Yours</em>{{ o.mine || '(deleted)' }}
        </PlainButton>
        <PlainButton
          :class="{ on: choices[i] === 'theirs' || choices[i] === 'both' }"
          :aria-pressed="choices[i] === 'theirs'"
          @click="pick(i, 'theirs')"
        >
          <em>{{ listed(overlaps.by) }}</em>{{ o.theirs || '(deleted)' }}
        </PlainButton>
      </div>
      <TextButton class="small" :aria-pressed="choices[i] === 'both'" @click="pick(i, 'both')">
        {{ choices[i] === 'both' ? 'both stand, theirs first' : 'let both stand' }}
      </TextButton>
    </div>
  </section>
</template>

<style scoped>
.overlaps {
  background: var(--ember-soft);
  border-radius: var(--r);
  padding: 10px 14px 12px;
  display: grid;
  gap: 12px;
  margin-bottom: 12px;
}
.say {
  font-size: 0.84375rem;
  line-height: 1.5;
}
.overlap {
  display: grid;
  gap: 5px;
  justify-items: start;
}
.was {
  font: italic 400 0.84375rem/1.45 var(--read);
  color: var(--ink-2);
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  width: 100%;
}
.sides button {
  text-align: left;
  background: var(--sheet);
  border: 1.5px solid var(--line);
  border-radius: var(--r);
  padding: 7px 11px 9px;
  cursor: pointer;
  font: 400 0.9375rem/1.5 var(--read);
  white-space: pre-line;
}
.sides button:hover {
  border-color: var(--ink-3);
}
.sides .on {
  border-color: var(--harbour);
  box-shadow: inset 4px 0 0 var(--harbour);
}
.sides em {
  display: block;
  font: 600 0.75rem/1.5 var(--ui);
  color: var(--ink-3);
}
@media (max-width: 760px) {
  .sides {
    grid-template-columns: 1fr;
  }
}
</style>
