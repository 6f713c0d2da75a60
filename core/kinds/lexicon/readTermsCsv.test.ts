import { expect, it } from 'vitest'
import { readTermsCsv } from './readTermsCsv'

it('reads terms by the names of their columns, and says of each line that lacks something what it lacks', () => {
  const { terms, faults } = readTermsCsv(
    'Definition;Term;Other forms;Found in longer words\n"a wall, in the sea";mole;moles | jetty;no\n;pilot;;\nno name;;;\nwhat is owed;due;;yes',
  )
  expect(terms).toEqual([
    {
      line: 2,
      term: 'mole',
      definition: 'a wall, in the sea',
      forms: ['moles', 'jetty'],
      category: null,
      sources: '',
      whole: true,
    },
    {
      line: 5,
      term: 'due',
      definition: 'what is owed',
      forms: [],
      category: null,
      sources: '',
      whole: false,
    },
  ])
  expect(faults).toEqual([
    { code: 'noDefinition', line: 3, term: 'pilot' },
    { code: 'noTerm', line: 4, term: '' },
  ])
})
it('refuses a table without the columns it needs', () =>
  expect(readTermsCsv('word,meaning\na,b').faults).toEqual([{ code: 'noHeader' }]))
it('takes off the apostrophe that keeps a spreadsheet from reckoning', () =>
  expect(readTermsCsv("term,definition\n'=last,'-9 to 9").terms[0]).toMatchObject({
    term: '=last',
    definition: '-9 to 9',
  }))
