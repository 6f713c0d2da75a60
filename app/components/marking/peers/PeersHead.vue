<script setup lang="ts">
import KeyHint from '~/components/controls/KeyHint.vue'
import KindTag from '~/components/planning/KindTag.vue'
import { plural } from '#core/language'

/** The line above a review desk: what it is of, how far it has come, and what is to be looked at. */
defineProps<{
  title: string
  base: string
  about: string
  counts: { readonly in: number; readonly all: number }
  /** Reviewers who are late, and reviews that are flagged. */
  late: number
  flagged: number
  hidesNames: boolean
}>()
const emit = defineEmits<{ flagged: []; names: [] }>()
</script>

<template>
  <header class="desk-head">
    <KindTag kind="review" />
    <h1>
      <NuxtLink :to="base">{{ title }}</NuxtLink>
    </h1>
    <span class="small muted">{{ about }}</span>
    <span class="grow" />
    <span class="small num"
      ><b>{{ counts.in }}</b> of {{ counts.all }} reviews in<template v-if="late > 0">
        · <b>{{ late }}</b> {{ plural(late, 'reviewer') }} late</template
      ><template v-if="flagged > 0">
        · <b>{{ flagged }}</b> flagged</template
      ></span
    >
    <v-btn v-if="flagged > 0" @click="emit('flagged')">Next flagged <KeyHint of="f" /></v-btn>
    <slot />
    <v-btn :aria-pressed="hidesNames" @click="emit('names')">{{
      hidesNames ? 'Show names' : 'Hide names'
    }}</v-btn>
  </header>
</template>
