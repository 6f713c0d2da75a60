import { expect, it } from 'vitest'
import { unlikeTable } from '#server/testing/access/answersByTable'
import { TEACHING_TABLE } from '#server/testing/access/tables'

it('answers every role as the table says: contributions, marks, people and plans', async () => {
  expect(await unlikeTable(TEACHING_TABLE)).toEqual([])
})
