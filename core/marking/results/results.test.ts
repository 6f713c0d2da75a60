import { describe, expect, it } from 'vitest'
import { compareMarks, readPoints, type KnownMark } from './compareMarks'
import { safeCell } from './safeCell'

describe('cells for spreadsheets', () => {
  it.each(['=1+1', '+cmd', '-2+3', '@SUM(A1)', '\t=1', '\r=1', ' =1', '|calc', '＝1', '\u0000=2'])(
    '%j is led by an apostrophe',
    text => {
      expect(safeCell(text)).toBe(`'${text}`)
    },
  )
  it.each(['Liv Brandt', '17.5', '-3', '+4,25', '93 %', 'a=b', '', 'O’Dea, É.'])(
    '%j stays as it is',
    text => {
      expect(safeCell(text)).toBe(text)
    },
  )
})

describe('a file of marks', () => {
  const names = (givenName: string, familyName: string) => ({ givenName, familyName })
  const known: KnownMark[] = [
    {
      enrolmentId: 'liv',
      name: 'Liv Brandt',
      ...names('Liv', 'Brandt'),
      email: 'liv@x.example',
      studentNumber: 'S01',
      points: 1700,
    },
    {
      enrolmentId: 'ann',
      name: 'Ann Lee',
      ...names('Ann', 'Lee'),
      email: 'ann@x.example',
      studentNumber: null,
      points: null,
    },
    {
      enrolmentId: 'ann2',
      name: 'ann  lee',
      ...names('ann', 'lee'),
      email: 'ann2@x.example',
      studentNumber: null,
      points: 500,
    },
  ]
  const row = (line: number, who: string, points: string) => ({ line, keys: { any: who }, points })
  it('says what would change and names every row it cannot take, with its reason', () => {
    const rows = [
      row(2, 'LIV@x.example ', '17'),
      row(3, 'ann@x.example', '18,5'),
      row(4, 'Ann Lee', '3'),
      row(5, 'Nobody', '4'),
      row(6, 'ann2@x.example', 'good'),
      row(7, 'S01', '12'),
      row(8, 'ann2@x.example', '25.5'),
      row(9, 'ann2@x.example', ''),
      row(10, 'ann2@x.example', '-1'),
      row(11, "'S01", '17'),
    ]
    expect(compareMarks(rows, known, 2500)).toEqual({
      changes: [{ line: 3, enrolmentId: 'ann', name: 'Ann Lee', by: 'mail', from: null, to: 1850 }],
      used: { mail: 2, number: 0, name: 0 },
      same: 1,
      empty: 1,
      faults: [
        { line: 4, who: 'Ann Lee', fault: 'ambiguous' },
        { line: 5, who: 'Nobody', fault: 'unknown' },
        { line: 6, who: 'ann2@x.example', fault: 'notANumber' },
        { line: 7, who: 'S01', fault: 'twice' },
        { line: 8, who: 'ann2@x.example', fault: 'outside' },
        { line: 10, who: 'ann2@x.example', fault: 'outside' },
        { line: 11, who: "'S01", fault: 'twice' },
      ],
    })
  })
  it('knows students by number where a row has no address, by name where it has neither, and says by what', () => {
    const people: KnownMark[] = [
      known[0]!,
      {
        ...known[1]!,
        enrolmentId: 'runa',
        name: 'Runa Holt',
        ...names('Runa', 'Holt'),
        email: 'runa@x.example',
      },
      { ...known[1]!, enrolmentId: 'prince', name: 'Tide', ...names('', 'Tide'), email: 'tide@x.example' },
    ]
    const rows = [
      { line: 2, keys: { mail: 'other@x.example', name: 'Liv Brandt' }, points: '3' }, // another address is another person
      { line: 3, keys: { mail: '', number: 's01', name: 'Somebody Else' }, points: '4' },
      { line: 4, keys: { mail: ' ', number: '', name: 'Holt, Runa' }, points: '5' },
      { line: 5, keys: { name: 'tide' }, points: '6' },
    ]
    const { changes, faults, used } = compareMarks(rows, people, 2500)
    expect(changes.map(c => [c.line, c.enrolmentId, c.by])).toEqual([
      [3, 'liv', 'number'],
      [4, 'runa', 'name'],
      [5, 'prince', 'name'],
    ])
    expect(faults).toEqual([{ line: 2, who: 'other@x.example', fault: 'unknown' }])
    expect(used).toEqual({ mail: 0, number: 1, name: 2 })
  })
  it.each([
    ['17', 1700],
    ['17.5', 1750],
    ['17,05', 1705],
    [' 0 ', 0],
    ['-0.5', -50],
    ['1e3', null],
    ['17.555', null],
    ['', null],
    ['0x1', null],
  ])('%j is %j hundredths', (text, points) => {
    expect(readPoints(text)).toBe(points)
  })
})
