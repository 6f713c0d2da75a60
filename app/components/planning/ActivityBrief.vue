<script setup lang="ts">
import type { ActivityView } from '#shared/contributing/activity'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import ProseRecordings from '../contributing/ProseRecordings.vue'
import ProseText from '../contributing/ProseText.vue'
import TranscriptFold from '../contributing/TranscriptFold.vue'

/** A brief as it is met everywhere: text, the instructor's voice, prompts released so far, and the starter. */
defineProps<{ activity: ActivityView }>()
const seminar = useSeminarStore()
const { date } = useTimes()
</script>

<template>
  <div class="activity-brief">
    <audio
      v-if="activity.spoken"
      controls
      preload="metadata"
      :src="activity.spoken.url"
      aria-label="The brief, spoken by the instructor"
    />
    <TranscriptFold
      v-if="activity.spoken"
      :file-id="activity.spoken.url.replace('/api/files/', '')"
      :url="activity.spoken.url"
      :may-add="seminar.isStaff"
    />
    <ProseText :html="activity.briefHtml" />
    <ProseRecordings :html="activity.briefHtml" :may-add="seminar.isStaff" />
    <section v-for="p in activity.prompts" :key="p.number" class="prompt">
      <h3>
        Prompt {{ p.number }} <span>since {{ date(p.releaseAt) }}</span>
      </h3>
      <ProseText :html="p.html" />
    </section>
    <section v-if="activity.starterHtml" class="starter">
      <h3>To begin with</h3>
      <ProseText :html="activity.starterHtml" />
    </section>
  </div>
</template>

<style scoped>
audio {
  height: 34px;
  margin-bottom: 8px;
}
.prompt,
.starter {
  border-left: 3px solid var(--harbour);
  padding-left: 14px;
  margin-top: 14px;
}
.starter {
  border-left-color: var(--ember);
}
h3 {
  font: 600 0.8125rem/1.4 var(--ui);
  color: var(--ink-2);
}
h3 span {
  font-weight: 400;
  color: var(--ink-3);
}
</style>
