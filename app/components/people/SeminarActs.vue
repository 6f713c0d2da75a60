<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import ModalDialog from '~/components/controls/ModalDialog.vue'
import { addressOf } from '#shared/http/endpoint'
import { dayAfter, localDay } from '#core/planning/week'
import type { SettingsBody } from '#shared/people/settings'
import { newKey, useApi } from '~/composables/shell/useApi'
import { mondayOf } from '~/composables/planning/termWeeks'
import { useSending } from '~/composables/shell/useSending'
import { useTimes } from '~/composables/planning/useTimes'
import { useSeminarStore } from '~/stores/seminar'
import { useNotices } from '~/stores/notices'
import { useSessionStore } from '~/stores/session'
import SettingsPart from './settings/SettingsPart.vue'
import TermFields from './TermFields.vue'
import * as peopleEndpoints from '#shared/people/endpoints'
import * as keepingEndpoints from '#shared/keeping/endpoints'

/** What is made of a seminar as a whole: a copy for another term, a file of everything. */
const props = defineProps<{ seminarId: string; settings: SettingsBody }>()
const api = useApi()
const notices = useNotices()
const seminar = useSeminarStore()
const { now } = useTimes()
const session = useSessionStore()
const { busy, problems, problem, send } = useSending()
const copying = ref(false)
let id = newKey()
const copy = reactive({ code: '', title: '' })
const term = ref({ firstDay: '', weeks: 0, breaks: [] as Array<{ week: number; title: string }> })

/** Nine weeks after this term or, where that is over, next Monday. */
function nextTerm(): string {
  const after = mondayOf(dayAfter(props.settings.firstDay, 7 * (props.settings.weeks + 9)))
  const monday = mondayOf(dayAfter(localDay(now.value, seminar.shell!.timeZone), 7))
  return after > monday ? after : monday
}
function begin() {
  id = newKey()
  Object.assign(copy, { code: props.settings.code, title: props.settings.title })
  term.value = {
    firstDay: nextTerm(),
    weeks: props.settings.weeks,
    breaks: props.settings.breaks.map(b => ({ ...b })),
  }
  copying.value = true
}
async function make() {
  const made = await send(() =>
    api.call(peopleEndpoints.copySeminar, {
      params: { seminarId: props.seminarId },
      body: { id, ...copy, ...term.value },
    }),
  )
  if (!made) return
  copying.value = false
  await session.load()
  await navigateTo(`/seminars/${made.seminarId}/plan`)
  notices.say('The copy is here, every activity a draft in the same teaching week.')
}
</script>

<template>
  <SettingsPart title="The whole seminar">
    <div class="acts">
      <v-btn @click="begin">Copy it for another term …</v-btn>
      <a
        class="v-btn keep"
        :href="addressOf(keepingEndpoints.downloadArchive, { params: { seminarId } })"
        download
        >Download everything (archive)</a
      >
      <p class="hint">
        The archive holds everything, people and marks among it, in files that can be read without Jovrel; an
        installation that does not have the seminar can import it. Of drafts it holds that they exist, not
        their words.
      </p>
      <p class="hint">
        A copy takes settings, library and activities along, each date in the same teaching week; people and
        what they wrote stay here.
      </p>
    </div>
    <ModalDialog v-model="copying" max-width="760" aria-label="Copy for another term">
      <form class="card" novalidate @submit.prevent="make">
        <h3>Copy for another term</h3>
        <div class="two">
          <label class="lab"
            >Title<LineInput v-model="copy.title" class="in" /><small
              v-if="problems.title"
              class="field-problem"
              >{{ problems.title }}</small
            ></label
          ><label class="lab"
            >Short code<LineInput v-model="copy.code" class="in" /><small
              v-if="problems.code"
              class="field-problem"
              >{{ problems.code }}</small
            ></label
          >
        </div>
        <TermFields v-model="term" :problems="problems" />
        <p v-if="problem && Object.keys(problems).length === 0" class="field-problem" role="alert">
          {{ problem }}
        </p>
        <p class="end">
          <v-btn class="main" type="submit" :disabled="busy">{{
            busy ? 'Copying …' : 'Make the copy'
          }}</v-btn><v-btn class="quiet" @click="copying = false">Cancel</v-btn>
        </p>
      </form>
    </ModalDialog>
  </SettingsPart>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.card {
  padding: 20px 24px;
  display: grid;
  gap: 16px;
}
h3 {
  font: 600 1.125rem/1.3 var(--read);
}
.two {
  display: grid;
  grid-template-columns: 1fr 9rem;
  gap: 14px;
}
.end {
  display: flex;
  gap: 10px;
}
.keep {
  display: inline-flex;
  align-items: center;
}
</style>
