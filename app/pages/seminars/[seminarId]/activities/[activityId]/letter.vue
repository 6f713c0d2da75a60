<script setup lang="ts">
import { addressOf } from '#shared/http/endpoint'
import KindTag from '~/components/planning/KindTag.vue'
import LetterSheet from '~/components/marking/LetterSheet.vue'
import LetterTalk from '~/components/marking/LetterTalk.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import { useApi } from '~/composables/shell/useApi'
import { useTimes } from '~/composables/planning/useTimes'
import * as markingEndpoints from '#shared/marking/endpoints'

definePageMeta({ layout: 'seminar' })
const route = useRoute()
const params = { activityId: String(route.params.activityId) }
const api = useApi()
const { dayTime } = useTimes()
const {
  data: letter,
  error,
  refresh,
} = await useAsyncData(`letter-${route.params.activityId}`, () =>
  api.call(markingEndpoints.readLetter, { params }),
)
useHead({ title: () => (letter.value ? `Letter: ${letter.value.title}` : 'Letter') })
const thread = `/seminars/${route.params.seminarId}/activities/${route.params.activityId}`
const print = () => window.print()
const pdf = addressOf(markingEndpoints.downloadLetter, {
  params,
})
</script>

<template>
  <ProblemPage v-if="error || !letter" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else>
    <header>
      <p><KindTag :kind="letter.kind" /></p>
      <h1>{{ letter.title }}</h1>
      <p class="muted">returned by {{ letter.by }}, {{ dayTime(letter.returnedAt) }}</p>
    </header>
    <LetterSheet :letter="letter" :thread="thread">
      <LetterTalk
        :activity-id="String(route.params.activityId)"
        :enrolment-id="null"
        :to-whom="letter.by.split(' ')[0]!"
      />
      <template #acts
        ><div class="acts">
          <v-btn :to="thread">Back to the talk</v-btn><v-btn class="quiet" :href="pdf">As PDF</v-btn
          ><v-btn class="quiet" @click="print">Print</v-btn>
        </div></template
      >
    </LetterSheet>
  </main>
</template>

<style scoped>
main {
  padding: 20px 20px 40px;
  width: 100%;
  max-width: 1080px;
  margin: 0 auto;
}
header {
  margin-bottom: 16px;
}
h1 {
  font: 600 1.5rem/1.25 var(--read);
  margin-top: 8px;
}
.acts {
  display: flex;
  gap: 4px;
  margin-top: 8px;
  flex-wrap: wrap;
}
@media print {
  .acts {
    display: none;
  }
}
</style>
