import { describe, expect, it } from 'vitest'
import { buildThread, countReplies, orderThreads, type ThreadNode } from './buildThread'

const item = (id: string, parentId: string | null, minute: number) => ({
  id,
  parentId,
  shownAt: new Date(Date.UTC(2026, 9, 12, 9, minute)).toISOString(),
})
const list = [
  item('a', null, 0),
  item('b', null, 1),
  item('a1', 'a', 2),
  item('c', null, 3),
  item('a2', 'a', 4),
  item('a11', 'a1', 5),
  item('b1', 'b', 6),
]
const ids = (
  nodes: readonly ThreadNode<{ id: string; parentId: string | null; shownAt: string }>[],
): string => nodes.map(n => n.item.id + (n.replies.length > 0 ? `(${ids(n.replies)})` : '')).join(' ')

describe('a thread', () => {
  it('hangs answers below what they answer, in the order of talk', () => {
    expect(ids(buildThread(list))).toBe('a(a1(a11) a2) b(b1) c')
    expect(buildThread([])).toEqual([])
  })
  it('keeps an answer whose parent this reader does not get', () => {
    expect(ids(buildThread([item('x', 'gone', 1), item('y', 'x', 2)]))).toBe('x(y)')
  })
  it('counts everything below', () => {
    expect(countReplies(buildThread(list)[0]!)).toBe(3)
  })
  it('orders by the latest word, by being unanswered, and by what is new', () => {
    const roots = buildThread(list)
    expect(ids(orderThreads(roots, 'newest', () => false))).toBe('b(b1) a(a1(a11) a2) c')
    expect(ids(orderThreads(roots, 'unanswered', () => false))).toBe('c a(a1(a11) a2) b(b1)')
    expect(ids(orderThreads(roots, 'onlyNew', i => i.id === 'a11'))).toBe('a(a1(a11) a2)')
    expect(ids(orderThreads(roots, 'talk', () => false))).toBe(ids(roots))
  })
})
