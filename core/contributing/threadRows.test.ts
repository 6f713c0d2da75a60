import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { buildThread, countReplies, orderThreads } from './buildThread'
import { threadRows, type RowOptions } from './threadRows'

interface Item {
  readonly id: string
  readonly parentId: string | null
  readonly shownAt: string
  readonly onTop?: boolean
}
const item = (id: string, parentId: string | null = null, more: Partial<Item> = {}): Item => ({
  id,
  parentId,
  shownAt: '2026-10-14T08:00:00Z',
  ...more,
})
const plain: RowOptions<Item> = {
  folded: new Set(),
  unfolded: new Set(),
  longThread: 99,
  replyTo: null,
  isNew: () => false,
}
const keys = (items: readonly Item[], options: Partial<RowOptions<Item>> = {}) =>
  threadRows(buildThread(items), { ...plain, ...options }).map(r => r.key)
const TALK = [item('a'), item('b', 'a'), item('c', 'b'), item('d', 'a'), item('e')]

describe('a talk laid out in rows', () => {
  it('is empty without contributions', () => expect(keys([])).toEqual([]))
  it('puts answers below what they answer', () => expect(keys(TALK)).toEqual(['a', 'b', 'c', 'd', 'e']))
  it('draws each line as far as answers follow', () => {
    const rows = threadRows(buildThread(TALK), plain)
    expect(rows.map(r => (r.kind === 'post' ? [r.depth, r.goesOn, r.stem, r.lines] : null))).toEqual([
      [0, false, true, []],
      [1, true, true, []],
      [2, false, false, [true]],
      [1, false, false, []],
      [0, false, false, []],
    ])
  })
  it('folds by hand, and a long thread by itself until it is unfolded, with what is inside and new', () => {
    expect(keys(TALK, { folded: new Set(['b']) })).toEqual(['a', 'b', 'b:fold', 'd', 'e'])
    const [, fold] = threadRows(buildThread(TALK), { ...plain, longThread: 3, isNew: i => i.id === 'c' })
    expect(fold).toMatchObject({ kind: 'fold', answers: 3, fresh: 1 })
    expect(keys(TALK, { longThread: 3, unfolded: new Set(['a']) })).toEqual(['a', 'b', 'c', 'd', 'e'])
  })
  it('opens the place of a reply after the answers there are, also under a folded thread', () => {
    expect(keys(TALK, { replyTo: 'b' })).toEqual(['a', 'b', 'c', 'b:write', 'd', 'e'])
    expect(keys(TALK, { replyTo: 'a', folded: new Set(['a']) })).toEqual(['a', 'a:fold', 'a:write', 'e'])
  })
  it('keeps what is on top first in every order, and counts answers at any depth', () => {
    const talk = [item('a'), item('b'), item('c', 'b'), item('d', 'c'), item('e', null, { onTop: true })]
    expect(orderThreads(buildThread(talk), 'talk', () => false).map(r => r.item.id)).toEqual(['e', 'a', 'b'])
    expect(orderThreads(buildThread(talk), 'answers', () => false).map(r => r.item.id)).toEqual([
      'e',
      'b',
      'a',
    ])
    expect(orderThreads(buildThread(talk), 'unanswered', () => false).map(r => r.item.id)).toEqual([
      'e',
      'a',
      'b',
    ])
  })
  it('shows everything exactly once when nothing is folded, and hides exactly what is counted when something is', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(), { maxLength: 40 }), fc.nat(), (parents, fold) => {
        const items = parents.map((p, i) => item(`n${i}`, i === 0 || p % 4 === 0 ? null : `n${p % i}`))
        expect([...keys(items)].sort()).toEqual(items.map(i => i.id).sort())
        if (items.length === 0) return
        const id = `n${fold % items.length}`
        const roots = buildThread(items)
        const rows = threadRows(roots, { ...plain, folded: new Set([id]) })
        const hidden = rows.reduce((n, r) => n + (r.kind === 'fold' ? r.answers : 0), 0)
        expect(rows.filter(r => r.kind === 'post').length + hidden).toBe(items.length)
        expect(roots.reduce((n, r) => n + 1 + countReplies(r), 0)).toBe(items.length)
      }),
    )
  })
})
