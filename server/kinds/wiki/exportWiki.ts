import { and, asc, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import { strToU8 } from 'fflate'
import { titleKey } from '#core/kinds/wiki/wikiSettings'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, files, wikiPages } from '#server/database/schema'
import type { Served } from '#server/http/sendFile'
import { wholeBytes } from '#server/services/files'
import { renderDoc } from '#server/richText/renderDoc'
import { exportPage } from '#server/richText/exportPage'
import { pageMarkdown } from './markdown/writePage'
import { inSpace, pageAt, pagesOf, wikiSpaceOf, wikiAccess, type PageRow } from './wikiAccess'
import { packFiles } from './inThread'
import { picturesIn } from '#core/contributing/picturesIn'

interface Take {
  readonly group?: string | undefined
  readonly as: 'site' | 'markdown'
}

/** One wiki in an archive: every page as it stands, with its pictures, its links leading from file to file. */
export async function exportWiki(
  db: Db,
  actor: ActivityActor,
  { group, as }: Take,
  now: Date,
): Promise<Served> {
  const access = await wikiAccess(db, actor, now)
  const groupId = group ?? null
  if (!access.reach(groupId).read) throw nothingHere()
  const pages = await pagesOf(db, actor.activity.id, wikiSpaceOf(access, groupId))
  const texts = await db
    .select({ pageId: wikiPages.id, doc: contributions.doc })
    .from(wikiPages)
    .innerJoin(contributions, eq(contributions.id, wikiPages.currentId))
    .where(
      and(
        eq(wikiPages.activityId, actor.activity.id),
        inSpace(wikiSpaceOf(access, groupId)),
        isNull(wikiPages.removedAt),
        isNotNull(wikiPages.currentId),
      ),
    )
    .orderBy(asc(wikiPages.position))
  const names = fileNames(pages, as === 'site' ? 'html' : 'md')
  const wanted = [...new Set(texts.flatMap(t => picturesIn(t.doc)))]
  const pictures =
    wanted.length > 0
      ? await db.select({ id: files.id, name: files.name }).from(files).where(inArray(files.id, wanted))
      : []
  const pictureName = new Map(
    pictures.map((p, i) => [p.id, `pictures/${i + 1}-${p.name.replace(/[^\p{L}\p{N}.]+/gu, '-')}`]),
  )
  const title = access.groups.find(g => g.id === groupId)?.title ?? actor.activity.title
  const entries: Record<string, Uint8Array> = {}
  const docOf = (page: PageRow) => texts.find(t => t.pageId === page.id)?.doc ?? { type: 'doc' }
  const link = (to: string) => {
    const page = pageAt(pages, to)
    return page ? names.get(page.id)! : null
  }
  const addresses = {
    picture: (src: string) => pictureName.get(src.split('/').at(-1)!) ?? null,
    page: (to: string) => link(to) ?? `${safe(to)}.md`,
  }
  for (const page of pages) {
    entries[names.get(page.id)!] = strToU8(
      as === 'site'
        ? sitePage(
            page.title,
            title,
            tree(pages, names),
            siteHtml(renderDoc(docOf(page)).html, link, pictureName),
          )
        : `# ${page.title}\n\n${pageMarkdown(docOf(page), addresses)}`,
    )
  }
  if (as === 'site')
    entries['index.html'] = strToU8(
      sitePage(title, title, tree(pages, names), `<div class="brief">${actor.activity.briefHtml}</div>`),
    )
  for (const { id } of pictures) entries[pictureName.get(id)!] = await wholeBytes(db, id)
  return {
    name: `${title.replace(/[^\p{L}\p{N}]+/gu, ' ').trim() || 'Wiki'}.zip`,
    type: 'application/zip',
    bytes: await packFiles(entries, now),
  }
}

/** Every page's file, each once: Markdown files are found again by their titles, a site's have plain addresses. */
function fileNames(pages: readonly PageRow[], extension: 'html' | 'md'): Map<string, string> {
  const taken = new Set(['index'])
  return new Map(
    pages.map(page => {
      const base =
        extension === 'md'
          ? safe(page.title)
          : titleKey(page.title)
              .replace(/[^\p{L}\p{N}]+/gu, '-')
              .replace(/^-|-$/g, '')
              .slice(0, 60) || 'page'
      let name = base
      for (let n = 2; taken.has(name.toLowerCase()); n++)
        name = `${base} ${n}`.replace(' ', extension === 'md' ? ' ' : '-')
      taken.add(name.toLowerCase())
      return [page.id, `${name}.${extension}`]
    }),
  )
}
/** A title without what some system takes for more than a letter of a file's name. */
const safe = (title: string): string =>
  title
    .replace(/[\\/:*?"<>|#%\u0000-\u001f]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 80) || 'page'

/** The page as the reader's own browser shows it, with links and pictures of the archive in place of ours. */
function siteHtml(
  html: string,
  link: (title: string) => string | null,
  pictures: ReadonlyMap<string, string>,
): string {
  return html
    .replace(
      /<a class="page-link" data-page="([^"]*)" href="[^"]*">(.*?)<\/a>/gs,
      (_, title: string, text: string) => {
        const to = link(decode(title))
        return to ? `<a href="${escapeHTML(to)}">${text}</a>` : `<span class="wanted">${text}</span>`
      },
    )
    .replace(/src="\/api\/files\/([0-9a-f-]{36})"/g, (whole, id: string) =>
      pictures.has(id) ? `src="${escapeHTML(pictures.get(id)!)}"` : whole,
    )
}
const decode = (text: string): string =>
  text
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', "'")
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&')

function tree(
  pages: readonly PageRow[],
  names: ReadonlyMap<string, string>,
  parentId: string | null = null,
): string {
  const own = pages.filter(p => p.parentId === parentId)
  if (own.length === 0) return ''
  const items = own.map(p => {
    const link = `<a href="${escapeHTML(names.get(p.id)!)}">${escapeHTML(p.title)}</a>`
    return `<li>${link}${tree(pages, names, p.id)}</li>`
  })
  return `<ul>${items.join('')}</ul>`
}

const STYLE = `
body {
  font: 17px/1.6 Georgia,serif;
  color: #22201c;
  background: #fdfcf8;
  margin: 0;
  display: grid;
  grid-template-columns: 16rem minmax(0,44rem);
  gap: 3rem;
  padding: 2rem;
}
nav {
  font: 15px/1.5 sans-serif;
}
nav ul {
  list-style: none;
  padding-left: .9rem;
}
a {
  color: #1c4b48;
}
code {
  white-space: pre-wrap;
}
.wanted {
  border-bottom: 1px dashed #a0522d;
}
table {
  border-collapse: collapse;
}
td,th {
  border: 1px solid #cfc8b8;
  padding: .2rem .5rem;
}
img {
  max-width: 100%;
}
.footnotes {
  font-size: .85em;
  border-top: 1px solid #cfc8b8;
  padding-top: .6rem;
}
@media (max-width: 760px) {
  body {
    display: block;
    padding: 1rem;
  }
}
`
const sitePage = (title: string, wiki: string, pages: string, body: string) =>
  exportPage(
    title,
    STYLE,
    `<nav><a href="index.html"><b>${escapeHTML(wiki)}</b></a>${pages}</nav>
<main><h1>${escapeHTML(title)}</h1>
${body}</main>`,
  )
