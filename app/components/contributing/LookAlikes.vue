<script setup lang="ts">
import ModalDialog from '~/components/controls/ModalDialog.vue'
import { markPassages } from '#core/contributing/markPassages'
import type { LookAlikesView } from '#shared/contributing/lookAlikes'
import { capital, inWords, plural } from '#core/language'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** A quiet hint to staff that some texts share wording, with the passages side by side. It says nothing of why. */
const props = defineProps<{ activityId: string }>()
const emit = defineEmits<{ goTo: [id: string] }>()
const api = useApi()
const { dayTime } = useTimes()
const found = shallowRef<LookAlikesView | null>(null)
const at = ref<number | null>(null)
const pair = computed(() => (at.value === null ? null : (found.value?.pairs[at.value] ?? null)))
const marked = (html: string, words: readonly string[]) =>
  markPassages(
    html,
    words.map(exact => ({ exact, open: '<mark class="taken">', close: '</mark>' })),
  )
const percent = (share: number) => `${Math.round(share * 100)} %`
onMounted(async () => {
  try {
    found.value = await api.call(contributingEndpoints.findLookAlikes, {
      params: { activityId: props.activityId },
    })
  } catch {
    found.value = null
  } // a hint that cannot be had is no hint
})
function goTo(id: string) {
  at.value = null
  emit('goTo', id)
}
</script>

<template>
  <section v-if="found && found.pairs.length > 0" class="alike">
    <h2>Shared wording</h2>
    <p>
      {{ capital(inWords(found.pairs.length)) }} {{ plural(found.pairs.length, 'pair', 'pairs') }} of texts
      {{ found.pairs.length === 1 ? 'shares' : 'share' }} a passage.
      <TextButton v-for="(p, i) in found.pairs.slice(0, 4)" :key="p.first.id + p.second.id" @click="at = i">
        {{ p.first.author.split(' ')[0] }} and {{ p.second.author.split(' ')[0] }}
      </TextButton>
    </p>
    <ModalDialog
      :model-value="pair !== null"
      max-width="1040"
      scrollable
      aria-label="Shared wording"
      @update:model-value="at = null"
    >
      <div v-if="pair" class="card both">
        <h2>What two texts share</h2>
        <p class="hint">
          Quotations and the brief are left out. It may be a source both used, or one answering the other.
        </p>
        <div class="sides">
          <article
            v-for="[side, words] in [
              [pair.first, pair.passages.map(p => p.first)],
              [pair.second, pair.passages.map(p => p.second)],
            ] as const"
            :key="side.id"
          >
            <p class="by">
              <b>{{ side.author }}</b>, {{ dayTime(side.shownAt) }} · {{ percent(side.share) }} of it
              <TextButton @click="goTo(side.id)">go there</TextButton>
            </p>
            <!-- eslint-disable-next-line vue/no-v-html -- sanitised on the server when it was written -->
            <div class="prose" dir="auto" v-html="marked(side.html, words)" />
          </article>
        </div>
        <p><v-btn @click="at = null">Close</v-btn></p>
      </div>
    </ModalDialog>
  </section>
</template>

<style scoped>
.alike {
  border-top: 1px solid var(--line);
  margin-top: 12px;
  padding-top: 12px;
  font-size: 0.78125rem;
  line-height: 18px;
  color: var(--ink-2);
}
.alike > h2 {
  font-size: 0.8125rem;
  letter-spacing: 0;
  color: var(--ink);
}
.link {
  margin-right: 10px;
}
.both {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
  max-height: 84vh;
  overflow: auto;
}
.both h2 {
  font: 600 1.125rem/1.3 var(--read);
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 26px;
}
.by {
  font-size: 0.8125rem;
  color: var(--ink-3);
  margin-bottom: 4px;
}
.by b {
  color: var(--ink);
}
@media (max-width: 760px) {
  .sides {
    grid-template-columns: 1fr;
  }
}
</style>
