import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'

const home = join(import.meta.dirname, '..')
const papers = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync(join(home, 'docs'), { recursive: true, encoding: 'utf8' })
    .filter(file => file.endsWith('.md'))
    .map(file => join('docs', file)),
]
const TOP = /^(app|core|shared|server|demo|e2e|bench|scripts|docs)\//

/** Files and folders of the project that a paper names in code marks. */
const named = (text: string) =>
  [...text.matchAll(/`([^`\s]+)`/g)].map(m => m[1]!).filter(path => TOP.test(path) && !/[<>*…]/.test(path))
const links = (text: string) =>
  [...text.matchAll(/\]\(([^)#]+)\)/g)].map(m => m[1]!).filter(to => !/^[a-z]+:/.test(to))

describe('the papers', () => {
  it.each(papers)('%s names files and links pages that are there', paper => {
    const text = readFileSync(join(home, paper), 'utf8')
    const missing = [
      ...named(text).filter(path => !existsSync(join(home, path))),
      ...links(text).filter(to => !existsSync(join(home, dirname(paper), to))),
    ]
    expect(missing).toEqual([])
  })

  it('answer a newcomer’s questions within three files each', () => {
    const table = readFileSync(join(home, 'CONTRIBUTING.md'), 'utf8').split('\n')
    for (const question of [
      'How is lateness calculated?',
      'Who may read a draft?',
      'How is a mark returned?',
      'What mail is sent when?',
      'Where is a due date changed?',
    ]) {
      const files = named(table.find(line => line.includes(question)) ?? '')
      expect(files.length, question).toBeGreaterThan(0)
      expect(files.length, question).toBeLessThanOrEqual(3)
    }
  })
})
