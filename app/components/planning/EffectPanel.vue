<script setup lang="ts">
import type { Standing } from '#core/standing/standing'
import type { EffectView } from '#shared/planning/composer'
import { capital, inWords, plural } from '#core/language'
import { lateWords } from '~/composables/marking/lateWords'
import { STANDING_WORDS } from '~/composables/planning/standingWords'

/** What a change would do, said before it is done. */
const props = defineProps<{ effect: EffectView | null; problem: string | null }>()
const SHOWN = 5
/** What a rule for late work would take from whom. */
function lateLine(late: EffectView['late']): string {
  const each = late
    .slice(0, SHOWN)
    .map(
      l =>
        `${l.name}, ${lateWords(l.minutes)} late, would lose ${l.percent === 0 ? 'nothing' : `up to ${l.percent} % of the points`}`,
    )
  const more = late.length - SHOWN
  return `${each.join('; ')}${more > 0 ? `; and ${inWords(more)} more` : ''}.`
}
function firstOf(names: readonly string[]) {
  const first = names.slice(0, 3).join(', ')
  return names.length > 3 ? `${first} and ${inWords(names.length - 3)} more` : first
}
const lines = computed(() => {
  const e = props.effect
  if (!e) return []
  const lines = e.moves.map(
    m =>
      `${capital(inWords(m.people))} ${plural(m.people, 'student')} would go from ${STANDING_WORDS[m.from as Standing]} to ${STANDING_WORDS[m.to as Standing]}.`,
  )
  if (e.joining > 0)
    lines.push(
      `${capital(inWords(e.joining))} ${plural(e.joining, 'student')} would take part who ${e.joining === 1 ? 'does' : 'do'} not now.`,
    )
  if (e.leaving.length > 0)
    lines.push(
      `${firstOf(e.leaving)} would no longer take part, though they have written; what they wrote stays.`,
    )
  if (e.shuts)
    lines.push(
      'It is open now and would be closed to students until its new opening; what was written stays.',
    )
  if (e.renamed && e.kept > 0)
    lines.push(
      `What was written goes along: ${e.kept} ${plural(e.kept, 'contribution')} ${e.kept === 1 ? 'becomes' : 'become'} this kind's entries and answers.`,
    )
  if (e.late.length > 0) lines.push(lateLine(e.late))
  if (e.recalculated > 0)
    lines.push(
      `${capital(inWords(e.recalculated))} ${plural(e.recalculated, 'mark')} not returned yet would be calculated again. Returned ones stay as they are.`,
    )
  if (lines.length === 0)
    lines.push(
      e.kept > 0
        ? 'Nobody’s standing would change; everything that was written stays.'
        : 'Nobody’s standing would change.',
    )
  return lines
})
</script>

<template>
  <div class="effect" role="status">
    <p v-if="problem" class="field-problem" role="alert">{{ problem }}</p>
    <p v-for="line in lines" v-else :key="line">{{ line }}</p>
    <p v-if="!effect && !problem" class="hint">calculating what this would do …</p>
  </div>
</template>

<style scoped>
.effect {
  font: 400 0.90625rem/1.5 var(--read);
}
</style>
