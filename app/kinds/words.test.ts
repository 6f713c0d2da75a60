import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { KIND_WORDS } from './words'

const tokens = readFileSync(join(import.meta.dirname, '../theme/tokens.css'), 'utf8')
const timesSet = (name: string) => tokens.split(`${name}:`).length - 1

describe('kinds in the interface', () => {
  it.each(ACTIVITY_KINDS)('%s has a name of its own and a colour by day and by night', kind => {
    const names = Object.values(KIND_WORDS).map(w => w.name)
    expect(names.filter(n => n === KIND_WORDS[kind].name)).toHaveLength(1)
    expect(timesSet(`--k-${kind}`)).toBe(timesSet('--k-discussion'))
  })
})
