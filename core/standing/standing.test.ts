import { expect, it } from 'vitest'
import { standingOf, type StandingSnapshot } from './standing'

const none: StandingSnapshot = { mark: 'none', shown: 0, drafts: 0, closed: false, neededMet: false }

it.each([
  ['nothing at all', none, 'nothing'],
  ['nothing when it has closed', { ...none, closed: true }, 'nothing'],
  ['a draft begun', { ...none, drafts: 1 }, 'underWay'],
  ['a draft left lying when it closed', { ...none, drafts: 1, closed: true }, 'underWay'],
  ['something, not enough, still open', { ...none, shown: 1 }, 'underWay'],
  ['all that is needed, still open', { ...none, shown: 4, neededMet: true }, 'ready'],
  ['something when it has closed', { ...none, shown: 1, closed: true }, 'ready'],
  ['held', { ...none, mark: 'held', shown: 2 }, 'held'],
  ['returned without any work', { ...none, mark: 'returned' }, 'returned'],
] as const)('%s stands right', (_, snapshot, standing) => {
  expect(standingOf(snapshot)).toBe(standing)
})
