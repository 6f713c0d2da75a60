import { expect, it } from 'vitest'
import { flagReviews, type FlaggedText } from './flagReviews'

const words =
  'the ledger of the weigh house lists salt and bread and who was paid for carrying either of them up the stair'
const text = (reviewId: string, said: string): FlaggedText => ({
  ...{ reviewId, reviewerId: reviewId, text: said, words: said.split(' ').length },
  ...{ names: [], namesReviewer: false },
})

it('says once of a review that its words stand in another, however many others they stand in', () => {
  const flags = flagReviews(
    ['a', 'b', 'c', 'd'].map(id => text(id, words)),
    [],
    new Map(),
  )
  const alike = flags.filter(f => f.code === 'sameWords').map(f => f.reviewId)
  expect(alike.length).toBe(3)
  expect(new Set(alike).size).toBe(3)
})
