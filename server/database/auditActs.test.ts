import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { AUDIT_ACTS } from './auditActs'

describe('acts of the audit trail', () => {
  it('are stored under words that are each their own, so that every act is read back as what it was', () => {
    const words = Object.values(AUDIT_ACTS)
    expect(new Set(words).size).toBe(words.length)
  })
  it('are all written or told somewhere', () => {
    const sources = ['../services', '../kinds'].flatMap(path => {
      const folder = join(import.meta.dirname, path)
      return readdirSync(folder, { recursive: true, encoding: 'utf8' })
        .filter(file => file.endsWith('.ts') && !file.endsWith('.test.ts'))
        .map(file => readFileSync(join(folder, file), 'utf8'))
    })
    const unused = Object.keys(AUDIT_ACTS).filter(
      code => !sources.some(s => s.includes(`'${code}'`) || s.includes(`${code}:`)),
    )
    expect(unused).toEqual([])
  })
})
