import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

/** Acts that have a plain verb, and the riddles that stood for them once. */
const RIDDLES: Readonly<Record<string, RegExp>> = {
  'Export or Download': /\btake (it|them|notes|results) (along|away)\b/i,
  Import: /\btake \S+ in\b|\b(bring|take) (them|it|pages|terms|marks) in\b/i,
  Delete: /\btake (it|the \w+) (away|out)\b/i,
  Remove:
    /\btake (?:(?!\bto\b)[^.,]){1,60} (off|away|out)$|\btake it off\b|\btake off\b|\btake the \w+ (off|back)\b/i,
  Save: /\bput away\b|\bkeep the questions\b/i,
  'Discard changes or Delete draft': /\blet the (changes|draft) go\b/i,
  'Cancel or Close': /\bnot after all\b|\bafter all$|^not now$|^leave (it|them)\b/i,
  'Save changes': /^change it\b/i,
  'Hand in or Post': /\bput it (in|up)\b/i,
  'Withdraw or Restore': /\b(put|take) it back\b/i,
  'Assign reviewers, Reassign or Shuffle again':
    /\bdeal (it|anew|the work)\b|\bdealt (out|anew)\b|\bthe deal\b/i,
  'Release reviews': /\blet (it |them )?out\b/i,
  'Quote in a reply': /\btakes? up\b/i,
  'Set points or Count as on time': /\bset other points\b|\bwaived?\b/i,
  'each student or whole group': /\beach their own\b|\bonce for the group\b/i,
  'imported, removed, deleted or undone': /\b(?:taken|brought) (?:in|off|away|out|back)\b/i,
  'calculate or again': /\breckon|\banew\b/i,
  Search: /\bfind in this talk\b/i,
}

/** What stands in a template to be read: texts between tags, titles and labels, and words of its script in quotation marks. */
function wordsOf(source: string): string[] {
  const template = source.slice(source.indexOf('<template>'))
  const between = [...template.matchAll(/>([^<>{}]+)</g)].map(m => m[1]!)
  const said = [...template.matchAll(/\b(?:title|label|aria-label|placeholder|verb|hint)="([^"]+)"/g)].map(
    m => m[1]!,
  )
  const quoted = [...source.matchAll(/'([^'\n]{3,})'|`([^`\n]{3,})`/g)].map(m => m[1] ?? m[2]!)
  return [...between, ...said, ...quoted]
    .map(text =>
      text
        .replace(/\$\{[^}]*\}/g, 'it')
        .replace(/\s+/g, ' ')
        .trim(),
    )
    .filter(Boolean)
}

/** Sentences the server says: to somebody who was refused something, in a mail, in a notice. */
function sentencesOf(source: string): string[] {
  const code = source.replace(/\/\*\*[\s\S]*?\*\//g, '').replace(/\/\/.*$/gm, '')
  return [...code.matchAll(/(['`])([A-Z“][^'`\n]*[.?!])\1/g)].map(m => m[2]!)
}
const SAID_OF_TEXTS = /takes up( to [\d,]+|\b.* (characters|levels|criteria|classmate))/ // and of how much a field takes

describe('words of the interface', () => {
  it('name each act by the verb everybody knows', () => {
    const files = readdirSync(import.meta.dirname, { recursive: true, encoding: 'utf8' }).filter(name =>
      /\.vue$|(?<!\.test)\.ts$/.test(name),
    )
    expect(files.length).toBeGreaterThan(200)
    const found = files.flatMap(file =>
      wordsOf(readFileSync(join(import.meta.dirname, file), 'utf8')).flatMap(text =>
        Object.entries(RIDDLES).flatMap(([plain, riddle]) =>
          riddle.test(text) ? [`${file}: “${text.slice(0, 60)}”: say ${plain}`] : [],
        ),
      ),
    )
    expect(found).toEqual([])
  })

  it('and so do the sentences of the server', () => {
    const found = ['server', 'shared', 'core'].flatMap(layer =>
      readdirSync(join(import.meta.dirname, '..', layer), { recursive: true, encoding: 'utf8' })
        .filter(name => /(?<!\.test)\.ts$/.test(name) && !/^testing|releases/.test(name))
        .flatMap(name =>
          sentencesOf(readFileSync(join(import.meta.dirname, '..', layer, name), 'utf8')).flatMap(sentence =>
            Object.entries(RIDDLES).flatMap(([plain, riddle]) =>
              riddle.test(sentence) && !SAID_OF_TEXTS.test(sentence)
                ? [`${layer}/${name}: “${sentence.slice(0, 80)}”: say ${plain}`]
                : [],
            ),
          ),
        ),
    )
    expect(found).toEqual([])
  })
})
