import { afterEach, describe, expect, it, vi } from 'vitest'
import { seal, unseal } from './seal'

const SECRET = 'JBSWY3DPEHPK3PXP'
afterEach(() => {
  vi.unstubAllEnvs()
  vi.restoreAllMocks()
})

describe('a secret that has to be read again', () => {
  it('is stored as it is without a key, and sealed with one; both are read', () => {
    vi.stubEnv('JOVREL_SECRET_KEY', '')
    expect(seal(SECRET, 'liv')).toBe(SECRET)
    vi.stubEnv('JOVREL_SECRET_KEY', 'a long key of this installation')
    const stored = seal(SECRET, 'liv')
    expect(stored).not.toContain(SECRET)
    expect(seal(SECRET, 'liv')).not.toBe(stored)
    expect(unseal(stored, 'liv')).toBe(SECRET)
    expect(unseal(SECRET, 'liv')).toBe(SECRET) // from before there was a key
  })

  it('opens with its own key, in its own row, unchanged', () => {
    const told = vi.spyOn(console, 'error').mockImplementation(() => {})
    vi.stubEnv('JOVREL_SECRET_KEY', 'a long key of this installation')
    const stored = seal(SECRET, 'liv')
    const refused = expect.objectContaining({ status: 503 })
    expect(() => unseal(stored, 'paz')).toThrow(refused)
    expect(() => unseal(`${stored.slice(0, -4)}AAAA`, 'liv')).toThrow(refused)
    vi.stubEnv('JOVREL_SECRET_KEY', 'another key')
    expect(() => unseal(stored, 'liv')).toThrow(refused)
    vi.stubEnv('JOVREL_SECRET_KEY', '')
    expect(() => unseal(stored, 'liv')).toThrow(refused)
    expect(told).toHaveBeenCalledTimes(4)
  })
})
