import { describe, expect, it } from 'vitest'
import { deskHistory } from './deskHistory'

const note = (text: string) => ({ markerNote: text })

describe('what a marker has done on the desk', () => {
  it('takes a stretch of typing as one change, and a new one after a rest', () => {
    const history = deskHistory()
    history.changed('liv', note(''), note('a'), 0)
    history.changed('liv', note('a'), note('ab'), 500)
    history.changed('liv', note('ab'), note('abc'), 10_000)
    expect(history.last()).toMatchObject({ before: note('ab'), after: note('abc') })
    history.wasTakenBack(history.last()!)
    expect(history.last()).toMatchObject({ before: note(''), after: note('ab') })
  })

  it('keeps texts of two students, and two parts of one mark, apart', () => {
    const history = deskHistory()
    history.changed('liv', note(''), note('a'), 0)
    history.changed('paz', note(''), note('b'), 1)
    history.changed('paz', { lateWaived: false }, { lateWaived: true }, 2)
    const seen = []
    for (let deed = history.last(); deed; deed = history.last()) {
      seen.push(deed.kind === 'change' && [deed.id, ...Object.keys(deed.after)])
      history.wasTakenBack(deed)
    }
    expect(seen).toEqual([
      ['paz', 'lateWaived'],
      ['paz', 'markerNote'],
      ['liv', 'markerNote'],
    ])
  })

  it('takes two steps, set one after the other, as two changes', () => {
    const history = deskHistory()
    history.changed('liv', { steps: [] }, { steps: [] }, 0)
    const first = history.last()
    history.changed('liv', { steps: [] }, { steps: [] }, 1)
    expect(history.last()).not.toBe(first)
  })

  it('takes an act before the steps that led to it', () => {
    const history = deskHistory()
    history.changed('liv', { steps: [] }, { steps: [] }, 0)
    history.record({ kind: 'act', id: 'liv', act: 'hold', from: 'open' })
    expect(history.last()).toMatchObject({ kind: 'act', act: 'hold' })
  })

  it('does again what was taken back, until something else is done', () => {
    const history = deskHistory()
    history.changed('liv', note(''), note('a'), 0)
    const deed = history.last()!
    history.wasTakenBack(deed)
    expect([history.last(), history.next()]).toEqual([null, deed])
    history.wasDoneAgain(deed)
    expect([history.last(), history.next()]).toEqual([deed, null])
    history.wasTakenBack(deed)
    history.changed('paz', note(''), note('b'), 1)
    expect(history.next()).toBeNull()
  })

  it('does not run into what cannot be taken back any more', () => {
    const history = deskHistory()
    history.changed('liv', note(''), note('a'), 0)
    history.record({ kind: 'act', id: 'liv', act: 'return', from: 'held' })
    history.drop(history.last()!)
    expect(history.last()).toMatchObject({ kind: 'change' })
  })
})
