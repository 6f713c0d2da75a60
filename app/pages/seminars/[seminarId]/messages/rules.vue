<script setup lang="ts">
import LineInput from '~/components/controls/LineInput.vue'
import LinesInput from '~/components/controls/LinesInput.vue'
import PickList from '~/components/controls/PickList.vue'
import { inWords, plural } from '#core/language'
import type { RuleList, RuleWrite } from '#shared/messaging/messages'
import KindTag from '~/components/planning/KindTag.vue'
import ProblemPage from '~/components/shell/ProblemPage.vue'
import VoicesTabs from '~/components/voices/VoicesTabs.vue'
import { useTimes } from '~/composables/planning/useTimes'
import { useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import ClockField from '~/components/controls/ClockField.vue'
import TextButton from '~/components/controls/TextButton.vue'

definePageMeta({ layout: 'seminar' })
useHead({ title: 'Standing rules' })
const route = useRoute()
const params = { seminarId: String(route.params.seminarId) }
const api = useApi()
const notices = useNotices()
const { busy, problem, problems, send, attempt } = useSending()
const { dayTime } = useTimes()
const { data, error, refresh } = await useAsyncData(`rules-${route.params.seminarId}`, () =>
  api.call(messagingEndpoints.readRules, { params }),
)
type Rule = RuleList['rules'][number]
const FIRST: RuleWrite = {
  activityId: null,
  daysBefore: 1,
  atTime: '12:00',
  subject: 'Before {activity} is due',
  text: 'Dear {name},\n\n{activity} is due {due}, and there is nothing from you yet. Still to come: {missing}.\n\nIs something in the way? Answer here, a line is enough.',
}
const editing = ref<string | null>(null) // a rule’s id, or 'new'
const form = reactive<{
  activityId: string
  daysBefore: number
  atTime: string
  subject: string
  text: string
}>({ ...FIRST, activityId: '' })
function edit(rule: Rule | null) {
  Object.assign(form, rule ?? FIRST, { activityId: rule?.activityId ?? '' })
  editing.value = rule?.id ?? 'new'
}
async function keep() {
  const write: RuleWrite = {
    activityId: form.activityId || null,
    daysBefore: Number(form.daysBefore),
    atTime: form.atTime,
    subject: form.subject,
    text: form.text,
  }
  const was = editing.value
  if (
    !(await send(() =>
      was === 'new'
        ? api.call(messagingEndpoints.makeRule, {
            params,
            body: write,
          })
        : api.call(messagingEndpoints.saveRule, {
            params: { seminarId: String(route.params.seminarId), ruleId: was! },
            body: write,
          }),
    ))
  )
    return
  editing.value = null
  await refresh()
  notices.say('Kept, and switched off. Look at what it would do, then switch it on.')
}
const turn = (rule: Rule, on: boolean) =>
  attempt(async () => {
    await api.call(messagingEndpoints.switchRule, {
      params: { seminarId: String(route.params.seminarId), ruleId: rule.id },
      body: { on, version: rule.version },
    })
    await refresh()
    notices.say(
      on
        ? 'It writes by itself now, to each student once for each activity.'
        : 'Switched off. Nothing more is sent by it.',
      {
        label: 'Undo',
        run: async () => {
          const now = data.value?.rules.find(r => r.id === rule.id)
          if (now)
            await attempt(() =>
              api.call(messagingEndpoints.switchRule, {
                params: { seminarId: String(route.params.seminarId), ruleId: rule.id },
                body: { on: !on, version: now.version },
              }),
            )
          await refresh()
        },
      },
    )
  }).then(done => {
    if (done === null) void refresh()
  })
const remove = (rule: Rule) =>
  attempt(async () => {
    await api.call(messagingEndpoints.deleteRule, {
      params: { seminarId: String(route.params.seminarId), ruleId: rule.id },
    })
    await refresh()
    notices.say('The rule is gone.', {
      label: 'Undo',
      run: async () => {
        await attempt(() =>
          api.call(messagingEndpoints.makeRule, {
            params,
            body: {
              activityId: rule.activityId,
              daysBefore: rule.daysBefore,
              atTime: rule.atTime,
              subject: rule.subject,
              text: rule.text,
            },
          }),
        )
        await refresh()
      },
    })
  })
const when = (r: Pick<Rule, 'daysBefore' | 'atTime'>) =>
  `${r.daysBefore === 0 ? 'on the day' : `${inWords(r.daysBefore)} ${plural(r.daysBefore, 'day')} before`}, at ${r.atTime}`
</script>

<template>
  <ProblemPage v-if="error || !data" :sentence="error?.message ?? ''" @retry="refresh()" />
  <main v-else class="rules">
    <header>
      <VoicesTabs /><span class="grow" /><NuxtLink
        class="small"
        :to="`/seminars/${route.params.seminarId}/messages`"
        >All messages</NuxtLink
      >
    </header>
    <div class="leaf">
      <div class="leaf-head">
        <h1>Standing rules</h1>
        <p class="muted">Whoever has handed in nothing by then is written to, once for each activity.</p>
        <span class="grow" /><v-btn v-if="data.mayManage && editing === null" class="main" @click="edit(null)"
          >A new rule</v-btn
        >
      </div>
      <form v-if="editing" class="card" @submit.prevent="keep">
        <p class="line">
          Of
          <PickList v-model="form.activityId" class="in" aria-label="Which activity">
            <option value="">every activity</option>
            <option v-for="a in data.activities" :key="a.id" :value="a.id">{{ a.title }}</option></PickList
          >,
          <LineInput
            v-model.number="form.daysBefore"
            class="in short"
            type="number"
            min="0"
            max="21"
            aria-label="Days before it is due"
          />
          {{ plural(Number(form.daysBefore), 'day') }} before it is first due, at
          <ClockField v-model="form.atTime" label="Time of day" />, write to whoever has handed in nothing:
        </p>
        <label class="lab"
          >What it is about<LineInput v-model="form.subject" class="in" maxlength="160"
        /></label>
        <label class="lab"
          >Words<LinesInput v-model="form.text" class="in words" rows="8" /><small
            >{name}, {missing}, {activity} and {due} stand for what is so for each.</small
          ></label
        >
        <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
        <p class="acts">
          <v-btn class="main" type="submit" :disabled="busy">Save it, switched off</v-btn
          ><v-btn class="quiet" @click="editing = null">Cancel</v-btn
          ><span v-for="(p, f) in problems" :key="f" class="visually-hidden">{{ p }}</span>
        </p>
      </form>
      <p v-if="data.rules.length === 0 && !editing" class="invite">
        No rule yet. One could say: a day before something is due, at noon, write to whoever has handed in
        nothing. What it would do is shown before you switch it on.
      </p>
      <article v-for="r in data.rules" :key="r.id" :class="{ on: r.on }">
        <div class="top">
          <h2>{{ r.about ?? 'Every activity' }}, {{ when(r) }}</h2>
          <span class="grow" />
          <span class="state"
            >{{ r.on ? 'on' : 'off' }}, {{ r.sent === 0 ? 'has sent nothing' : `has sent ${r.sent}` }}</span
          >
          <template v-if="data.mayManage"
            ><v-btn :class="{ main: !r.on }" @click="turn(r, !r.on)">{{
              r.on ? 'Switch off' : 'Switch on'
            }}</v-btn
            ><TextButton @click="edit(r)">Change</TextButton
            ><TextButton v-if="r.sent === 0" @click="remove(r)"> Remove </TextButton></template
          >
        </div>
        <p class="muted small">in the name of {{ r.by }}</p>
        <div class="what">
          <ul>
            <li v-for="c in r.coming" :key="c.activityId">
              <span class="num">{{ dayTime(c.at) }}</span><span
                ><KindTag :kind="c.kind" /> <b>{{ c.title }}</b>, due {{ dayTime(c.dueAt)
                }}<span class="now">{{
                  c.now === 0
                    ? 'not open yet, or nobody is silent now'
                    : `if it were now: ${c.names.join(', ')}${c.now > c.names.length ? ` and ${c.now - c.names.length} more` : ''}`
                }}</span></span
              >
            </li>
            <li v-if="r.coming.length === 0" class="muted">Nothing is coming that it would write about.</li>
          </ul>
          <blockquote v-if="r.coming[0]?.example">
            <b>{{ r.subject.replace('{activity}', `“${r.coming[0].title}”`) }}</b>
            <p>{{ r.coming[0].example }}</p>
          </blockquote>
        </div>
      </article>
    </div>
  </main>
</template>

<style scoped>
.rules {
  flex: 1;
  overflow: auto;
}
header {
  padding: 8px 20px 6px;
  border-bottom: 1px solid var(--line);
  display: flex;
  gap: 18px;
  align-items: baseline;
}
form.card {
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 10px;
  padding: 16px 18px;
  display: grid;
  gap: 12px;
  margin-bottom: 18px;
}
.line {
  font: 400 1rem/2.1 var(--read);
}
.line .in {
  font-family: var(--ui);
  max-width: 18rem;
}
.words {
  font: 400 0.9375rem/1.55 var(--read);
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
}
article {
  border-top: 1px solid var(--line);
  padding: 14px 0 18px;
}
.top {
  display: flex;
  gap: 6px 14px;
  align-items: baseline;
  flex-wrap: wrap;
}
h2 {
  font: 600 1.0625rem/1.35 var(--read);
}
.state {
  font-size: 0.8125rem;
  color: var(--ink-2);
}
.on .state {
  color: var(--moss);
  font-weight: 600;
}
.what {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 24px;
  margin-top: 10px;
}
ul {
  list-style: none;
  display: grid;
  gap: 8px;
  align-content: start;
  font-size: 0.84375rem;
}
li {
  display: grid;
  grid-template-columns: 118px minmax(0, 1fr);
  gap: 12px;
}
.now {
  display: block;
  color: var(--ink-2);
  font-size: 0.8125rem;
}
blockquote {
  border-left: 2px solid var(--line);
  padding-left: 14px;
  font: 400 0.90625rem/1.5 var(--read);
  white-space: pre-line;
  color: var(--ink-2);
}
blockquote b {
  color: var(--ink);
}
@media (max-width: 820px) {
  .what {
    grid-template-columns: minmax(0, 1fr);
  }
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
  header {
    padding: 8px 14px 6px;
  }
}
</style>
