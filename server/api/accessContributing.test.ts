import { expect, it } from 'vitest'
import { unlikeTable } from '#server/testing/access/answersByTable'
import { CONTRIBUTING_TABLE } from '#server/testing/access/tables'

it('answers every role as the table says: readings, wikis, reviews and the seminar itself', async () => {
  expect(await unlikeTable(CONTRIBUTING_TABLE)).toEqual([])
})
