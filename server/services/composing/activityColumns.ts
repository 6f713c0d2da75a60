import { settingsOfKind } from '#core/kinds/ownSettings'
import { talkOf } from '#core/contributing/talkSettings'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { ActivityRow } from '#server/access/seminar'
import { renderDoc } from '#server/richText/renderDoc'
import type { ActivityBody } from '#shared/planning/composer'

export function columnsOf(body: ActivityBody, before: Pick<ActivityRow, 'summary' | 'brief'> | null) {
  const brief = renderDoc(body.brief)
  const sameBrief = before && plainText(before.brief) === brief.text
  return {
    kind: body.kind,
    title: body.title,
    brief: body.brief,
    briefHtml: brief.html,
    summary: sameBrief ? before.summary : firstWords(body.brief),
    starter: body.starter && plainText(body.starter) !== '' ? body.starter : null,
    starterHtml: body.starter && plainText(body.starter) !== '' ? renderDoc(body.starter).html : null,
    spokenFileId: body.spokenFileId,
    unitId: body.unitId,
    categoryId: body.categoryId,
    scale: body.scale,
    gradingScaleId: body.gradingScaleId,
    points: body.points,
    passPercent: body.passPercent,
    practice: body.practice,
    groupMark: body.groupMark,
    returnTogether: body.returnTogether,
    rubricVersionId: body.rubricVersionId,
    lateRule: body.lateRule,
    combine: body.rubricVersionId ? null : body.combine,
    audience: body.audience,
    settings: settingsOf(body),
    opensAt: new Date(body.opensAt),
  }
}

/** What is set of the activity's own kind; what is set of others is not kept. */
function settingsOf(body: ActivityBody): ActivityRow['settings'] {
  const { writeFirst, editMinutes, hiddenUntil, rests, review, wiki, lexicon, reading } = body
  return {
    writeFirst,
    editMinutes,
    hiddenUntil,
    rests,
    ...settingsOfKind(body.kind, { ...talkOf(body), review, wiki, lexicon, reading }),
  }
}

const LONGEST_SUMMARY = 220 // characters

/** The first sentence or two of a brief, for lists: of its sentences, and not of the cells of a table. */
function firstWords(brief: RichNode): string {
  const isSaid = (block: RichNode) => block.type === 'paragraph' && plainText(block) !== ''
  const line = (brief.content ?? [])
    .filter(isSaid)
    .slice(0, 2)
    .map(block => plainText(block))
    .join(' ')
  if (line.length <= LONGEST_SUMMARY) return line
  const cut = line.slice(0, LONGEST_SUMMARY)
  const end = Math.max(cut.lastIndexOf('. '), cut.lastIndexOf('? '))
  return end > 80 ? cut.slice(0, end + 1) : `${cut.slice(0, cut.lastIndexOf(' '))} …`
}
