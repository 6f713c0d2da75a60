import { expect, it } from 'vitest'
import { neutralName } from './neutralName'

it('a neutral name keeps the form of a file and nothing else of its name', () => {
  expect(neutralName('Attachment 1', 'liv-brandt.final.PDF')).toBe('Attachment 1.pdf')
  expect(neutralName('Attachment 2', 'liv.brandt')).toBe('Attachment 2') // an ending has five letters at most
  expect(neutralName('Work 1', 'Brandt')).toBe('Work 1')
})
