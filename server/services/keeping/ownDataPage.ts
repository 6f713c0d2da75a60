const escaped = (text: string) =>
  text.replace(/[&<>"]/g, c => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)

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
  const parts = work
    .filter(w => w.html !== undefined)
    .map(
      w =>
        `<article><h2>${escaped(w.activity)}</h2><p>${escaped(w.type)}, ${w.shownAt ? w.shownAt.toISOString().slice(0, 16).replace('T', ' ') : escaped(w.state)}</p>${w.html}</article>`,
    )
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escaped(name)}: ${escaped(seminar)}</title><body><h1>${escaped(name)}: ${escaped(seminar)}</h1>${parts.join('\n')}<h1>Letters</h1>${letters.map(l => `<article><h2>${escaped(l.activity)}</h2>${l.returned?.html ?? ''}</article>`).join('\n')}</body></html>\n`
}
