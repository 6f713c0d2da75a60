import { describe, expect, it } from 'vitest'
import { USUAL_TALK } from '#core/contributing/talkSettings'
import { isWorkingPhase } from '#core/planning/schedule'
import { KINDS, kindsWhere } from '.'
import { ACTIVITY_KINDS, EVERY_TALK, OWN_PARTS } from './kind'
import { ownSettings, settingsOfKind } from './ownSettings'

const everything = { ...USUAL_TALK, review: 1, wiki: 2, lexicon: 3, reading: 4, writeFirst: true, rests: [] }

describe('kinds', () => {
  it.each(ACTIVITY_KINDS)('%s asks and offers only what can be met in it, in phases it has', kind => {
    const { expects, offers, usualRules, workingPhases, answerType, readBy } = KINDS[kind]
    const asked = usualRules.map(r => r.kind)
    for (const threads of ['everyone', 'staff'] as const)
      expect(expects).toEqual(expect.arrayContaining([...asked, ...offers({ threads })]))
    expect(workingPhases).toEqual(expect.arrayContaining(usualRules.map(r => r.due)))
    expect(workingPhases.every(isWorkingPhase)).toBe(true)
    expect(expects.includes('replies')).toBe(answerType !== null && readBy === 'class')
    expect(expects.includes('reviews')).toBe(answerType === 'review')
  })

  it('have every part of the settings once, and every setting of a talk somewhere', () => {
    expect(ACTIVITY_KINDS.flatMap(kind => KINDS[kind].ownPart ?? []).sort()).toEqual([...OWN_PARTS].sort())
    const known = new Set<string>([...EVERY_TALK, ...ACTIVITY_KINDS.flatMap(kind => KINDS[kind].ownTalk)])
    expect([...known].sort()).toEqual(Object.keys(USUAL_TALK).sort())
  })

  it('keep their own settings alone', () => {
    expect(Object.keys(settingsOfKind('wiki', everything)).sort()).toEqual(
      [...EVERY_TALK, 'rests', 'wiki', 'writeFirst'].sort(),
    )
    expect(ownSettings('wiki', everything)).toEqual({ wiki: 2 })
    expect(Object.keys(ownSettings('journal', everything)).sort()).toEqual(['indexBy', 'opening'])
    expect(ownSettings('exitNote', everything)).toEqual({})
  })

  it('are found by what holds of them', () => {
    expect(kindsWhere(k => k.markedBy === 'peers')).toEqual(['review'])
  })
})
