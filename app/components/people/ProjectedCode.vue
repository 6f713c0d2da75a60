<script setup lang="ts">
import { encode } from 'uqr'
import ModalDialog from '~/components/controls/ModalDialog.vue'

/** A joining code as it is shown to a room: its whole address to be typed, and the same as a picture for a camera. */
const props = defineProps<{ code: string }>()
const open = defineModel<boolean>({ required: true })
const { host, origin } = useRequestURL()
const address = computed(() => `${host}/join/${props.code}`)
const picture = computed(() => encode(`${origin}/join/${props.code}`, { border: 2 }))
/** Every dark square, as one path. */
const squares = computed(() =>
  picture.value.data
    .flatMap((row, y) => row.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : [])))
    .join(''),
)
</script>

<template>
  <ModalDialog v-model="open" max-width="1100" aria-label="Join the seminar">
    <div class="card projected">
      <h2>Join the seminar</h2>
      <p class="address">{{ address }}</p>
      <svg :viewBox="`0 0 ${picture.size} ${picture.size}`" role="img" :aria-label="`Opens ${address}`">
        <rect :width="picture.size" :height="picture.size" class="ground" />
        <path :d="squares" class="dark" />
      </svg>
      <v-btn class="quiet" @click="open = false">Close</v-btn>
    </div>
  </ModalDialog>
</template>

<style scoped>
.projected {
  display: grid;
  justify-items: center;
  gap: 20px;
  padding: 32px;
  text-align: center;
}
h2 {
  font: 600 1.5rem/1.2 var(--read);
}
.address {
  font: 600 clamp(1.25rem, 4.5vw, 3rem) / 1.2 var(--read);
  overflow-wrap: anywhere;
  user-select: all;
}
svg {
  width: min(46vh, 80vw);
  height: auto;
  border-radius: 8px;
}
/* a camera needs dark on light, also where the page is dark */
.ground {
  fill: #fff;
}
.dark {
  fill: #000;
  shape-rendering: crispEdges;
}
</style>
