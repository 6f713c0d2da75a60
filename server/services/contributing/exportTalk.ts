import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import TurndownService from 'turndown'
import { buildThread, type ThreadNode } from '#core/contributing/buildThread'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { exportPage } from '#server/richText/exportPage'
import type { ContributionView } from '#shared/contributing/thread'
import type { TalkExport, TalkExportForm } from '#shared/contributing/talkExport'
import { shapedThread } from './shapedThread'

type Node = ThreadNode<ContributionView>

/** A talk in a file, as its reader gets it on the page: names, places and what is hidden are decided where they always are. */
export async function exportTalk(
  db: Db,
  actor: ActivityActor,
  form: TalkExportForm,
  now: Date,
): Promise<TalkExport> {
  const { activity, seminar } = actor
  const { contributions, waiting } = await shapedThread(db, actor, now)
  const roots = buildThread(contributions.filter(c => c.view === 'place' || c.state === 'shown'))
  const at = (time: string) =>
    new Intl.DateTimeFormat('en-GB', {
      timeZone: seminar.timeZone,
      dateStyle: 'medium',
      timeStyle: 'short',
    }).format(new Date(time))
  const name =
    activity.title
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()
      .slice(0, 60) || 'Talk'
  const head = { title: activity.title, seminar: seminar.title, takenAt: now.toISOString() }
  switch (form) {
    case 'json':
      return {
        name: `${name}.json`,
        type: 'application/json',
        text: JSON.stringify(
          { ...head, brief: activity.briefHtml, waiting, contributions: contributions.map(plain) },
          null,
          2,
        ),
      }
    case 'html':
      return {
        name: `${name}.html`,
        type: 'text/html',
        text: exportPage(
          head.title,
          STYLE,
          [
            `<h1>${escapeHTML(head.title)}</h1>`,
            `<p>${escapeHTML(head.seminar)}, as of ${escapeHTML(at(head.takenAt))}</p>`,
            `<div class="brief">${activity.briefHtml}</div>`,
            list(roots, at),
          ].join('\n'),
        ),
      }
    case 'md': {
      const turndown = new TurndownService({ headingStyle: 'atx', bulletListMarker: '-' })
      const say = (node: Node, depth: number): string => {
        const { item } = node
        const own =
          item.view === 'place'
            ? '*A post stood here and was withdrawn.*'
            : `**${item.author.name}**, ${at(item.shownAt)}${item.title ? `: ${item.title}` : ''}\n\n${turndown.turndown(item.html ?? '')}`
        return [
          own
            .split('\n')
            .map(line => `${'> '.repeat(depth)}${line}`.trimEnd())
            .join('\n'),
          ...node.replies.map(r => say(r, depth + 1)),
        ].join('\n\n')
      }
      return {
        name: `${name}.md`,
        type: 'text/markdown',
        text: `# ${head.title}\n\n${head.seminar}, as of ${at(head.takenAt)}\n\n${turndown.turndown(activity.briefHtml)}\n\n---\n\n${roots.map(r => say(r, 0)).join('\n\n')}\n`,
      }
    }
  }
}

/** What of a contribution goes into a file: nothing that belongs to the reader's own page. */
function plain(c: ContributionView) {
  if (c.view === 'place') return { id: c.id, answers: c.parentId, withdrawn: true }
  return {
    id: c.id,
    answers: c.parentId,
    author: c.author.name,
    role: c.author.role ?? 'student',
    shownAt: c.shownAt,
    changedAt: c.editedAt,
    title: c.title,
    html: c.html,
    words: c.words,
    nods: c.nods,
    takesUp: c.takesUp,
    files: c.files.map(f => ({ name: f.name, type: f.type, size: f.size })),
    withdrawn: c.withdrawn,
  }
}

function shownHtml(item: Extract<ContributionView, { view: 'whole' }>, at: (time: string) => string) {
  const by = `<p class="by"><b>${escapeHTML(item.author.name)}</b>, ${escapeHTML(at(item.shownAt))}</p>`
  const title = item.title ? `<h2>${escapeHTML(item.title)}</h2>` : ''
  const quoted = item.takesUp ? `<blockquote>${escapeHTML(item.takesUp.exact)}</blockquote>` : ''
  return `${by}${title}${quoted}${item.html ?? ''}`
}

function list(nodes: readonly Node[], at: (time: string) => string): string {
  if (nodes.length === 0) return ''
  return `<ol>\n${nodes
    .map(
      ({ item, replies }) =>
        `<li id="c-${item.id}">${
          item.view === 'place'
            ? '<p class="gone">A post stood here and was withdrawn.</p>'
            : shownHtml(item, at)
        }${list(replies, at)}</li>`,
    )
    .join('\n')}\n</ol>`
}

const STYLE = `
body {
  font: 17px/1.55 Georgia,serif;
  max-width: 46rem;
  margin: 2rem auto;
  padding: 0 1rem;
  color: #22201c;
}
ol {
  list-style: none;
  padding-left: 1.4rem;
  border-left: 1px solid #cfc8b8;
}
li {
  margin: 1rem 0;
}
.by {
  font: 14px/1.4 sans-serif;
  color: #6b665c;
  margin: 0;
}
.gone {
  font-style: italic;
  color: #6b665c;
}
blockquote {
  border-left: 3px solid #1f6f63;
  margin: .4rem 0;
  padding-left: .8rem;
}
`
