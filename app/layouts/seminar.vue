<script setup lang="ts">
import SilenceBar from '../components/people/SilenceBar.vue'
import TopLine from '../components/shell/TopLine.vue'
import WeekRibbon from '../components/planning/WeekRibbon.vue'
import TermPeek from '~/kinds/lexicon/TermPeek.vue'
import FindDialog from '../components/shell/FindDialog.vue'
import KeyList from '../components/shell/KeyList.vue'
import { useStudentsEye } from '../composables/people/useStudentsEye'
import { useSeminarStore } from '../stores/seminar'
import { useTermsStore } from '../stores/terms'
import PlainButton from '~/components/controls/PlainButton.vue'

const route = useRoute()
const seminar = useSeminarStore()
const { error } = await useAsyncData(
  () => `shell-${route.params.seminarId}`,
  async () => {
    await seminar.load(route.params.seminarId as string)
    return true
  },
)
const terms = useTermsStore()
watch(
  () => seminar.shell?.id,
  id => {
    if (id && import.meta.client) void terms.load(id).catch(() => {})
  },
)
onMounted(() => {
  if (seminar.shell) void terms.load(seminar.shell.id).catch(() => {})
}) // without them words are words
const finding = ref(false)
const showsKeys = ref(false)
const eye = useStudentsEye()
function onKey(event: KeyboardEvent) {
  if ((event.ctrlKey || event.metaKey) && !event.altKey && event.key.toLowerCase() === 'k') {
    event.preventDefault()
    finding.value = !finding.value
  }
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
if (error.value) throw createError({ statusCode: 404, statusMessage: error.value.message, fatal: true })
</script>

<template>
  <div class="frame">
    <a class="skip" href="#page">Skip to the page</a>
    <div v-if="seminar.shell?.studentsEye" class="eye" role="status">
      You see this seminar as a practice student does. What you write here is seen by staff only and counts
      nowhere. <PlainButton @click="eye(false)">Back to teaching</PlainButton>
    </div>
    <SilenceBar
      v-if="seminar.shell?.silentSince"
      :seminar-id="seminar.shell.id"
      :since="seminar.shell.silentSince"
      :may-end="seminar.shell.role === 'instructor'"
    />
    <TopLine @find="finding = true" @keys="showsKeys = true" @eye="eye(true)" />
    <WeekRibbon
      v-if="seminar.shell"
      :weeks="seminar.shell.weeks"
      :current="seminar.shell.week"
      :chosen="seminar.chosenWeek"
      @choose="seminar.chooseWeek"
    />
    <div id="page" class="page" tabindex="-1">
      <slot />
    </div>
    <TermPeek />
    <KeyList v-model="showsKeys" />
    <FindDialog v-if="seminar.shell" v-model="finding" :shell="seminar.shell" @eye="eye(true)" />
  </div>
</template>

<style scoped>
.frame {
  min-height: 100dvh;
  display: flex;
  flex-direction: column;
}
.page {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  outline: none;
  box-shadow: none;
}
.eye {
  background: var(--ember);
  color: #fff;
  padding: 6px 20px;
  font-size: 0.84375rem;
  text-align: center;
}
:root[data-theme='night'] .eye {
  color: var(--paper);
}
.eye button {
  border: 0;
  background: none;
  color: inherit;
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  left: 12px;
  top: 8px;
  z-index: 20;
  background: var(--sheet);
  padding: 8px 12px;
}
@media (min-width: 900px) {
  .frame {
    height: 100dvh;
  }
}
</style>
