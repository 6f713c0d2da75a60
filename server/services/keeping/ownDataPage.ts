import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import { exportPage } from '#server/richText/exportPage'

const STYLE = `
body {
  font: 17px/1.55 Georgia, serif;
  max-width: 46rem;
  margin: 2rem auto;
  padding: 0 1rem;
}
`

/** What a person wrote, and their letters, as one page to be read. */
export function ownDataPage(
  name: string,
  seminar: string,
  work: ReadonlyArray<{
    readonly activity: string
    readonly type: string
    readonly state: string
    readonly shownAt: Date | null
    readonly html?: string
  }>,
  letters: ReadonlyArray<{ readonly activity: string; readonly returned: { readonly html: string } | null }>,
): string {
  const texts = work
    .filter(w => w.html !== undefined)
    .map(w => {
      const state = w.shownAt ? w.shownAt.toISOString().slice(0, 16).replace('T', ' ') : w.state
      const of = `<p>${escapeHTML(w.type)}, ${escapeHTML(state)}</p>`
      return `<article><h2>${escapeHTML(w.activity)}</h2>${of}${w.html}</article>`
    })
  const returned = letters.map(
    l => `<article><h2>${escapeHTML(l.activity)}</h2>${l.returned?.html ?? ''}</article>`,
  )
  const title = `${name}: ${seminar}`
  return exportPage(
    title,
    STYLE,
    `<h1>${escapeHTML(title)}</h1>\n${texts.join('\n')}\n<h1>Letters</h1>\n${returned.join('\n')}`,
  )
}
