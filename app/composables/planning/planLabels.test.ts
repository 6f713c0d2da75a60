import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lineWidth, placeLabels, type BarOnPlan } from './planLabels'

const bar = (left: number, right: number, more: Partial<BarOnPlan> = {}): BarOnPlan => ({
  left,
  right,
  solidRight: right,
  width: 1240,
  today: 550,
  ...more,
})

describe('names on the term plan', () => {
  it('stand in the bar where its first phase holds them, clear of the line of today', () => {
    expect(placeLabels(bar(100, 500), 150, [60])).toMatchObject({
      name: 'inside',
      nameLeft: 107,
      note: 'behind',
    })
    expect(placeLabels(bar(500, 900), 150, [60])).toMatchObject({ name: 'inside', nameLeft: 557 })
    expect(placeLabels(bar(500, 900, { solidRight: 700 }), 190, [60])).toMatchObject({ name: 'before' })
  })
  it('stand before a bar that begins late, behind one that begins early', () => {
    expect(placeLabels(bar(600, 700), 150, [60])).toMatchObject({ name: 'before', note: 'behind' })
    expect(placeLabels(bar(20, 120), 150, [60])).toMatchObject({ name: 'behind', note: 'behind' })
  })
  it('keep their note where there is room for one of its forms', () => {
    expect(placeLabels(bar(1000, 1130), 150, [140, 90])).toMatchObject({ note: 'behind', noteIndex: 1 })
    expect(placeLabels(bar(1000, 1239), 250, [140, 90])).toMatchObject({ name: 'before', note: 'before' })
  })
  it('are cut only where neither side holds them', () => {
    expect(placeLabels(bar(400, 900, { solidRight: 450 }), 600, [50])).toMatchObject({
      name: 'before',
      nameWidth: 391,
    })
    expect(placeLabels(bar(5, 1235, { solidRight: 40 }), 300, [50])).toMatchObject({
      name: 'over',
      nameWidth: 300,
    })
  })
  it('never reach past the edge, whatever the bar and the name', () => {
    const any = fc.record({
      edges: fc.tuple(fc.integer({ min: 0, max: 1240 }), fc.integer({ min: 0, max: 1240 })),
      solid: fc.double({ min: 0, max: 1, noNaN: true }),
      today: fc.integer({ min: 0, max: 1240 }),
      name: fc.integer({ min: 10, max: 1500 }),
      notes: fc.array(fc.integer({ min: 5, max: 400 }), { maxLength: 3 }),
    })
    fc.assert(
      fc.property(any, ({ edges, solid, today, name, notes }) => {
        const [left, right] = [Math.min(...edges), Math.max(...edges)]
        const at = placeLabels(
          bar(left, right, { solidRight: left + solid * (right - left), today }),
          name,
          notes,
        )
        const drawn = Math.min(name, at.nameWidth ?? name)
        const start = { before: left - drawn, behind: right, inside: at.nameLeft, over: at.nameLeft }[at.name]
        expect(start).toBeGreaterThanOrEqual(0)
        if (right - left > 20 || at.name !== 'over') expect(start + drawn).toBeLessThanOrEqual(1240)
        if (at.name === 'inside') expect(today <= start || today >= start + drawn).toBe(true)
      }),
    )
  })
  it('are measured as rather too wide', () => {
    expect(lineWidth('Where do you arrive from?', 13)).toBeGreaterThan(162) // as drawn in the interface's font
    expect(lineWidth('港町', 13)).toBeGreaterThan(26)
  })
})
