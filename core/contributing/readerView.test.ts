import { describe, expect, it } from 'vitest'
import { CONTRIBUTION_STATES } from './contribution'
import { readerView, type ReaderSnapshot } from './readerView'

const classmate: ReaderSnapshot = {
  role: 'student',
  isAuthor: false,
  state: 'shown',
  authorIsStaff: false,
  reach: 'class',
  ownsThread: false,
  threadByStaff: false,
  elsewhere: false,
  isQuestion: false,
  writeFirst: false,
  ownIsIn: false,
  hasShownAnswers: false,
  beforeReveal: false,
}

describe('what a reader may get of a contribution', () => {
  it('gives an author their own in every state', () => {
    for (const state of CONTRIBUTION_STATES)
      expect(readerView({ ...classmate, isAuthor: true, state, reach: 'thread', writeFirst: true })).toBe(
        'whole',
      )
  })
  it("never gives a draft's words to anyone else: staff learn its length", () => {
    for (const state of ['draft', 'scheduled'] as const) {
      expect(readerView({ ...classmate, state })).toBe('nothing')
      expect(readerView({ ...classmate, role: 'observer', state })).toBe('nothing')
      expect(readerView({ ...classmate, role: 'staff', state })).toBe('lengthOnly')
    }
  })
  it("hides everything but one's own from all but staff until the day it is revealed", () => {
    for (const role of ['student', 'observer'] as const)
      expect(readerView({ ...classmate, role, beforeReveal: true, ownIsIn: true })).toBe('nothing')
    expect(readerView({ ...classmate, isAuthor: true, beforeReveal: true })).toBe('whole')
    expect(readerView({ ...classmate, role: 'staff', beforeReveal: true })).toBe('whole')
  })
  it("hides classmates and the instructor until one's own is in", () => {
    expect(readerView({ ...classmate, writeFirst: true })).toBe('nothing')
    expect(readerView({ ...classmate, writeFirst: true, authorIsStaff: true })).toBe('nothing')
    expect(readerView({ ...classmate, writeFirst: true, state: 'withdrawn', hasShownAnswers: true })).toBe(
      'nothing',
    )
    expect(readerView({ ...classmate, writeFirst: true, ownIsIn: true })).toBe('whole')
  })
  it('keeps a journal between student and staff', () => {
    expect(readerView({ ...classmate, reach: 'thread' })).toBe('nothing')
    expect(readerView({ ...classmate, reach: 'thread', role: 'observer' })).toBe('nothing')
    expect(readerView({ ...classmate, reach: 'thread', role: 'staff' })).toBe('whole')
  })
  it('keeps each section or group to itself where each talks by itself, and staff reading all', () => {
    for (const role of ['student', 'observer'] as const) {
      for (const state of ['shown', 'withdrawn'] as const)
        expect(
          readerView({ ...classmate, role, state, elsewhere: true, hasShownAnswers: true, isQuestion: true }),
        ).toBe('nothing')
    }
    expect(readerView({ ...classmate, role: 'staff', elsewhere: true })).toBe('whole')
    expect(readerView({ ...classmate, isAuthor: true, elsewhere: true })).toBe('whole')
  })
  it("never lets staff's words under one journal reach another, but what staff begin for all", () => {
    const words = { ...classmate, reach: 'thread' as const, authorIsStaff: true }
    expect(readerView(words)).toBe('nothing')
    expect(readerView({ ...words, ownsThread: true })).toBe('whole')
    expect(readerView({ ...words, threadByStaff: true })).toBe('whole')
    expect(readerView({ ...words, threadByStaff: true, authorIsStaff: false })).toBe('nothing')
  })
  it("lets a question stand open before one's own answer is in, and its answers not", () => {
    expect(readerView({ ...classmate, writeFirst: true, isQuestion: true, authorIsStaff: true })).toBe(
      'whole',
    )
    expect(readerView({ ...classmate, beforeReveal: true, isQuestion: true, authorIsStaff: true })).toBe(
      'whole',
    )
    expect(readerView({ ...classmate, writeFirst: true })).toBe('nothing')
  })
  it('holds for approval until staff let it out', () => {
    expect(readerView({ ...classmate, state: 'awaitingApproval' })).toBe('nothing')
    expect(readerView({ ...classmate, state: 'awaitingApproval', role: 'staff' })).toBe('whole')
  })
  it('leaves the place of a withdrawn text only while something hangs below it', () => {
    expect(readerView({ ...classmate, state: 'withdrawn' })).toBe('nothing')
    expect(readerView({ ...classmate, state: 'withdrawn', hasShownAnswers: true })).toBe('place')
  })
})
