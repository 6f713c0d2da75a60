import { describe, expect, it } from 'vitest'
import { readAnnotation, toAnnotation, type PortableNote } from './webAnnotation'

const note: PortableNote = {
  id: 'urn:uuid:0192b000-0000-7000-8000-00000000000a',
  kind: 'question',
  html: '<p>Who <em>measured</em>?</p>',
  tags: ['toll', 'measures'],
  author: { id: 'urn:uuid:0192b000-0000-7000-8000-00000000000b', name: 'Oona Rintala' },
  at: '2026-10-14T08:20:00.000Z',
  changedAt: null,
  source: 'urn:uuid:0192b000-0000-7000-8000-00000000000c',
  passage: {
    exact: 'nineteen lasts',
    prefix: 'all measured at ',
    suffix: ' when the toll',
    start: 120,
    end: 134,
  },
  page: 5,
  time: null,
  area: null,
  leadsTo: null,
}

describe('notes as the open standard has them', () => {
  it.each<[string, Partial<PortableNote>]>([
    ['on a page of a paper', {}],
    ['on a recording', { page: null, passage: null, time: [12.5, 20] }],
    ['on the whole text', { page: null, passage: null, tags: [], author: null }],
    [
      'as an answer, changed',
      { kind: 'reply', page: null, passage: null, changedAt: '2026-10-15T08:20:00.000Z' },
    ],
    ['on an area of a scanned page', { passage: null, area: { x: 0.1, y: 0.25, width: 0.5, height: 0.125 } }],
    ['leading to another passage', { kind: 'link', leadsTo: 'eleven barges' }],
  ])('go out and come in the same: %s', (_, part) => {
    expect(readAnnotation(JSON.parse(JSON.stringify(toAnnotation({ ...note, ...part }))))).toEqual({
      kind: 'read',
      note: { ...note, ...part },
    })
  })
  it('name their context, motive and selectors', () => {
    expect(toAnnotation(note)).toMatchObject({
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      type: 'Annotation',
      motivation: 'questioning',
      target: {
        selector: [
          { type: 'FragmentSelector', value: 'page=5' },
          { type: 'TextQuoteSelector', exact: 'nineteen lasts' },
          { type: 'TextPositionSelector', start: 120, end: 134 },
        ],
      },
    })
  })
  it('are read as others write them: one body, plain text, selectors refined by one another', () => {
    const read = readAnnotation({
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      id: 'http://annotations.example/1',
      type: ['Annotation'],
      body: { type: 'TextualBody', value: 'a < b' },
      target: {
        source: { id: 'http://texts.example/roll' },
        selector: {
          type: 'FragmentSelector',
          value: 'page=3',
          refinedBy: { type: 'TextQuoteSelector', exact: 'twenty lasts' },
        },
      },
    })
    expect(read).toMatchObject({
      kind: 'read',
      note: {
        kind: 'note',
        html: '<p>a &lt; b</p>',
        source: 'http://texts.example/roll',
        page: 3,
        passage: { exact: 'twenty lasts', prefix: '', start: 0, end: 12 },
      },
    })
    expect(
      readAnnotation({ type: 'Annotation', bodyValue: 'short', target: 'http://texts.example/roll' }),
    ).toMatchObject({ kind: 'read', note: { html: '<p>short</p>', passage: null } })
    expect(
      readAnnotation({
        type: 'Annotation',
        bodyValue: 'x',
        target: { source: 'u', selector: { type: 'FragmentSelector', value: 't=npt:10' } },
      }),
    ).toMatchObject({ note: { time: [10, 10] } })
  })
  it.each([
    [null, 'notAnAnnotation'],
    [{ type: 'Note' }, 'notAnAnnotation'],
    [{ type: 'Annotation', target: 'u' }, 'noBody'],
    [{ type: 'Annotation', bodyValue: 'x' }, 'noTarget'],
    [
      {
        type: 'Annotation',
        bodyValue: 'x',
        target: { source: 'u', selector: { type: 'TextPositionSelector', start: 1, end: 5 } },
      },
      'noPassage',
    ],
  ])('are refused with what is missing: %j', (json, code) => {
    expect(readAnnotation(json)).toMatchObject({ kind: 'refused', fault: { code } })
  })
  it('take no endless chain of selectors', () => {
    const selector: Record<string, unknown> = { type: 'FragmentSelector', value: 'page=1' }
    let last = selector
    for (let i = 0; i < 1000; i++) {
      const next = { type: 'FragmentSelector', value: 'x' }
      last.refinedBy = next
      last = next
    }
    expect(
      readAnnotation({ type: 'Annotation', bodyValue: 'x', target: { source: 'u', selector } }),
    ).toMatchObject({ note: { page: 1 } })
  })
})
