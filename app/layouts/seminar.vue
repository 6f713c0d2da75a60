<script setup lang="ts">
import TopLine from '../components/shell/TopLine.vue'
import WeekRibbon from '../components/planning/WeekRibbon.vue'
import { useSeminarStore } from '../stores/seminar'

const route = useRoute()
const seminar = useSeminarStore()
const { error } = await useAsyncData(() => `shell-${route.params.seminarId}`, async () => {
  await seminar.load(route.params.seminarId as string)
  return true
})
if (error.value) throw createError({ statusCode: 404, statusMessage: error.value.message, fatal: true })
</script>

<template>
  <div class="frame">
    <a class="skip" href="#page">Skip to the page</a>
    <TopLine />
    <WeekRibbon v-if="seminar.shell" :weeks="seminar.shell.weeks" :current="seminar.shell.week" :chosen="seminar.chosenWeek" @choose="seminar.chooseWeek" />
    <div id="page" class="page" tabindex="-1">
      <slot />
    </div>
  </div>
</template>

<style scoped>
.frame { min-height: 100dvh; display: flex; flex-direction: column; }
.page { flex: 1; min-height: 0; display: flex; flex-direction: column; outline: none; box-shadow: none; }
.skip { position: absolute; left: -999px; }
.skip:focus { left: 12px; top: 8px; z-index: 20; background: var(--sheet); padding: 8px 12px; }
@media (min-width: 900px) { .frame { height: 100dvh; } }
</style>
