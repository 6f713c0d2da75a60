// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { localDraft } from './localDraft'
import { ownedStorage } from './ownedStorage'

const draft = () =>
  localDraft<string>('a plan', {
    write: kept => kept.value,
    read: written => ({ value: String(written), version: 1 }),
  })
const kept = () => ownedStorage.readJson('a plan')
const put = (value: string) => ({ value, version: 1 })

describe('what a browser keeps of a text that is saved', () => {
  beforeEach(() => {
    vi.useFakeTimers({ now: new Date('2026-10-14T08:20:00Z') })
    localStorage.clear()
  })
  afterEach(() => {
    vi.useRealTimers()
  })

  it('goes once the server has it, but not what another tab has put since', () => {
    const [here, there] = [draft(), draft()]
    here.put(put('Walls'))
    here.stored()
    expect(kept()).toBeNull()
    here.put(put('Walls'))
    there.put(put('Walls of Sundvik'))
    here.stored()
    expect(kept()).toBe('Walls of Sundvik')
  })

  it('stays for the page that opens next where this one is left before it hears that it is stored', () => {
    const here = draft()
    here.put(put('Written without a line'))
    window.dispatchEvent(new Event('beforeunload'))
    here.stored()
    expect(kept()).toBe('Written without a line')
    // a page that is still here later was not left
    vi.advanceTimersByTime(5000)
    expect(kept()).toBeNull()
  })

  it('stays where it was typed on after that', () => {
    const here = draft()
    here.put(put('One'))
    window.dispatchEvent(new Event('beforeunload'))
    here.stored()
    here.put(put('One two'))
    vi.advanceTimersByTime(5000)
    expect(kept()).toBe('One two')
    here.drop()
    expect(kept()).toBeNull()
  })

  it('is nothing where the browser keeps nothing', () => {
    vi.stubGlobal('localStorage', undefined)
    expect(draft().put(put('Walls'))).toBe(false)
    expect([kept(), ownedStorage.keys()]).toEqual([null, []])
    vi.unstubAllGlobals()
  })
})
