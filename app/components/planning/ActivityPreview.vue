<script setup lang="ts">
import { KINDS } from '#core/kinds'
import { isWorkingPhase } from '#core/planning/schedule'
import type { ActivityBody } from '#shared/planning/composer'
import { ruleWords } from '#core/planning/expectationWords'
import { capital } from '#core/language'
import { points } from '~/composables/marking/points'
import { PHASE_WORDS } from '~/composables/planning/scheduleWords'
import { useTimes } from '~/composables/planning/useTimes'
import KindTag from './KindTag.vue'

/** What students will see, as it is typed; the line that belongs to the sentence at hand lights up. */
const props = defineProps<{ body: ActivityBody; lit: string | null; summary: string }>()
const { day, dayTime } = useTimes()
const phases = computed(() => props.body.phases.filter(p => p.name !== 'return'))
const LEAST = 0.23 // of the width, so that no two dates touch
const shares = computed(() => {
  const lengths = phases.value.map(p => Math.max(1, Date.parse(p.endsAt) - Date.parse(p.startsAt)))
  const all = lengths.reduce((a, b) => a + b, 0)
  return lengths.map(l => `${Math.max(LEAST, l / all).toFixed(3)}fr`).join(' ')
})
const words = (p: (typeof phases.value)[number]) =>
  isWorkingPhase(p.name) ? `to ${day(p.endsAt)}` : `from ${day(p.startsAt)}`
const hidden = computed(() => {
  if (props.body.hiddenUntil) return `You will see the others’ from ${dayTime(props.body.hiddenUntil)}.`
  if (props.body.writeFirst) return 'You will see the others’ once yours is in.'
  return null
})
/** How it goes, as far as students are to know beforehand. */
const goes = computed(() => {
  const readersSentence = () => {
    if (props.body.opening === 'staff') return 'Between you and staff.'
    if (props.body.opening === 'author')
      return 'Between you and staff, except for what you open to the class.'
    return 'The class reads along.'
  }
  return [
    props.body.namesHidden && 'Classmates see you under another name; staff know who you are.',
    KINDS[props.body.kind].readBy === 'class' &&
      props.body.approval &&
      'The others see what you write once staff have read it.',
    KINDS[props.body.kind].reach === 'asOpened' && readersSentence(),
  ].filter(Boolean)
})
const foot = computed(() => {
  const scaleWords = () => {
    if (props.body.points !== null && props.body.scale !== 'none')
      return props.body.scale === 'complete' ? 'done or not' : `${points(props.body.points)} points`
    return 'not marked'
  }
  const changeRule = () => {
    if (KINDS[props.body.kind].standsIn === 'pages') return 'every version is kept'
    if (KINDS[props.body.kind].handsIn) return 'what is handed in can be changed until hand-in ends'
    if (props.body.editMinutes > 0) return `${props.body.editMinutes} minutes to change what you posted`
    return 'what is posted stays as it is'
  }
  return [scaleWords(), props.body.practice && 'practice, does not count', changeRule()]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <div class="preview" :style="{ '--c': `var(--k-${body.kind})` }">
    <KindTag :kind="body.kind" />
    <h3>{{ body.title || 'No title yet' }}</h3>
    <p v-if="summary" class="summary">{{ summary }}</p>
    <div class="phases" :style="{ gridTemplateColumns: shares }">
      <span v-for="p in phases" :key="p.name"
        ><i :class="p.name" /><b>{{ PHASE_WORDS[p.name] }}</b
        ><em>{{ words(p) }}</em></span
      >
    </div>
    <ul>
      <li v-for="r in body.rules" :key="r.id" :class="{ lit: lit === r.id }">
        <i class="box" />{{ capital(ruleWords(r.rule, body.kind)) }}
      </li>
      <li v-if="hidden" class="plain" :class="{ lit: lit === 'writeFirst' }">{{ hidden }}</li>
      <li v-for="line in goes" :key="String(line)" class="plain">{{ line }}</li>
    </ul>
    <p class="foot" :class="{ lit: lit === 'marked' || lit === 'edit' }">{{ foot }}</p>
  </div>
</template>

<style scoped>
.preview {
  border: 1px solid var(--line);
  border-radius: 9px;
  background: var(--sheet);
  padding: 14px 16px 13px;
}
h3 {
  font: 600 1.0625rem/1.3 var(--read);
  margin: 9px 0 4px;
  overflow-wrap: anywhere;
}
.summary {
  font: 400 0.84375rem/1.45 var(--read);
  color: var(--ink-2);
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.phases {
  display: grid;
  margin: 12px 0;
}
.phases span {
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
}
.phases i {
  height: 12px;
  border: 1px solid var(--c);
  margin-left: -1px;
}
.phases .write,
.phases .revise {
  background: var(--c);
}
.phases .revise {
  opacity: 0.75;
  border-left: 2px solid var(--sheet);
}
.phases .respond {
  background: repeating-linear-gradient(135deg, var(--c) 0 1.7px, transparent 1.7px 5.4px);
}
.phases .review {
  background: radial-gradient(circle at 3px 3px, var(--c) 1.35px, transparent 1.6px) 0 0/6px 6px;
}
.phases b {
  font: 600 0.78125rem/1.5 var(--ui);
  margin-top: 3px;
}
.phases em {
  font: 400 0.71875rem/1.2 var(--ui);
  font-style: normal;
  color: var(--ink-2);
  padding-right: 8px;
}
ul {
  list-style: none;
  border-top: 1px solid var(--line-soft);
  padding-top: 8px;
}
li {
  display: flex;
  gap: 9px;
  align-items: baseline;
  font: 400 0.875rem/1.4 var(--read);
  padding: 3px 6px;
  margin: 0 -6px;
  border-radius: 4px;
}
li.plain {
  padding-left: 29px;
  color: var(--ink-2);
}
.box {
  width: 12px;
  height: 12px;
  border: 1.5px solid var(--harbour);
  border-radius: 3px;
  flex: none;
  transform: translateY(1px);
}
.foot {
  font-size: 0.78125rem;
  color: var(--ink-2);
  margin: 7px -6px 0;
  padding: 2px 6px;
  border-radius: 4px;
}
.lit {
  background: var(--ember-soft);
}
</style>
