import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { persistently } from './persistently'

beforeEach(() => {
  vi.useFakeTimers()
  vi.spyOn(console, 'error').mockImplementation(() => {})
})
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})

describe('what is tried until it succeeds', () => {
  it('waits longer each time, and stops once it has', async () => {
    const tries: number[] = []
    const act = vi.fn(() => {
      tries.push(Date.now())
      return tries.length < 4 ? Promise.reject(new Error('no database')) : Promise.resolve()
    })
    persistently('test', act)
    await vi.advanceTimersByTimeAsync(120_000)
    expect(tries.slice(1).map((at, i) => at - tries[i]!)).toEqual([500, 1000, 2000])
  })
  it('is given up when its process ends', async () => {
    const act = vi.fn(() => Promise.reject(new Error('no database')))
    const giveUp = persistently('test', act)
    await vi.advanceTimersByTimeAsync(600)
    giveUp()
    await vi.advanceTimersByTimeAsync(60_000)
    expect(act).toHaveBeenCalledTimes(2)
  })
})
