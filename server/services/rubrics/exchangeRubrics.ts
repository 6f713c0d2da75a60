import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import {
  outcomesFromCase,
  rubricsFromCase,
  rubricToCase,
  type OutcomeDraft,
} from '#core/marking/rubric/caseJson'
import { outcomesFromCsv, rubricFromCsv, rubricToCsv } from '#core/marking/rubric/rubricCsv'
import { rubricFaults, type RubricDraft } from '#core/marking/rubric/rubricDraft'
import type { Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { outcomes, rubrics } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import { loadRubric } from '#server/services/rubrics/loadRubrics'
import { draftOf, insertRubric, requireNewest, rubricFaultSentence } from './rubrics'

/** A rubric as a file: CASE JSON or separated values. */
export async function exportRubric(db: Db, actor: Actor, rubricId: string, form: 'json' | 'csv', now: Date) {
  const newest = await requireNewest(db, actor, rubricId)
  const [rubric, known, [head]] = await Promise.all([
    loadRubric(db, newest.id),
    db.select().from(outcomes).where(eq(outcomes.seminarId, actor.seminar.id)),
    db.select().from(rubrics).where(eq(rubrics.id, rubricId)),
  ])
  const draft = draftOf(rubric!, known)
  const name =
    draft.title
      .replace(/[^\p{L}\d]+/gu, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase() || 'rubric'
  if (form === 'csv') return { name: `${name}.csv`, type: 'text/csv', text: rubricToCsv(draft) }
  const json = rubricToCase(draft, head!.identifier, () => v7(), now.toISOString(), known)
  return {
    name: `${name}.json`,
    type: 'application/json',
    text: JSON.stringify({ CFRubrics: [json] }, null, 2),
  }
}

/** Takes rubrics and learning outcomes in from CASE JSON or separated values; what cannot be used is named. */
export function importToLibrary(
  db: Database,
  actor: Actor,
  file: { readonly key: string; readonly name: string; readonly base64: string },
  now: Date,
) {
  return withIdempotency(db, actor.enrolment, file.key, async tx => {
    const bytes = Buffer.from(file.base64, 'base64')
    const { rubricDrafts, outcomeDrafts, passedOver } = readFile(file.name, bytes)
    const newOutcomes = await insertOutcomes(tx, actor, outcomeDrafts)
    let made = 0
    for (const draft of rubricDrafts) {
      const [fault] = rubricFaults(draft)
      if (fault) {
        passedOver.push(`“${draft.title}”: ${rubricFaultSentence(fault, draft)}`)
        continue
      }
      await insertRubric(tx, actor, draft, now)
      made++
    }
    if (made + newOutcomes === 0 && passedOver.length === 0)
      passedOver.push(
        outcomeDrafts.length > 0
          ? 'All of these outcomes are here already.'
          : 'There is nothing in this file that could be taken.',
      )
    return { rubrics: made, outcomes: newOutcomes, passedOver }
  })
}

function readFile(
  name: string,
  bytes: Buffer,
): { rubricDrafts: readonly RubricDraft[]; outcomeDrafts: readonly OutcomeDraft[]; passedOver: string[] } {
  if (/\.csv$|\.txt$/i.test(name)) {
    const rubric = rubricFromCsv(bytes, name.replace(/\.[^.]+$/, ''))
    if (rubric.kind === 'read') return { rubricDrafts: [rubric.rubric], outcomeDrafts: [], passedOver: [] }
    const found = outcomesFromCsv(bytes)
    if (found)
      return {
        rubricDrafts: [],
        outcomeDrafts: found.found,
        passedOver: found.badLines.map(line => `Line ${line} could not be read.`),
      }
    throw refusedField(
      'file',
      'unreadable',
      `Line ${rubric.line} could not be read${rubric.value ? ` (“${rubric.value}”)` : ''}. A rubric needs the columns criterion, level 1, points 1, descriptor 1 and so on; outcomes need code and statement.`,
    )
  }
  const text = bytes.toString('utf8')
  const [rubricsFound, outcomesFound] = [rubricsFromCase(text), outcomesFromCase(text)]
  if (rubricsFound.kind === 'refused' && outcomesFound.kind === 'refused') {
    throw refusedField(
      'file',
      rubricsFound.code,
      rubricsFound.code === 'notJson'
        ? 'This file is not JSON. Nothing was changed.'
        : 'There are no rubrics and no learning outcomes in this file. Nothing was changed.',
    )
  }
  return {
    rubricDrafts: rubricsFound.kind === 'read' ? rubricsFound.found : [],
    outcomeDrafts: outcomesFound.kind === 'read' ? outcomesFound.found : [],
    passedOver: [],
  }
}

async function insertOutcomes(tx: Db, actor: Actor, drafts: readonly OutcomeDraft[]): Promise<number> {
  if (drafts.length === 0) return 0
  const from = await tx.$count(outcomes, eq(outcomes.seminarId, actor.seminar.id))
  const rows = await tx
    .insert(outcomes)
    .values(
      drafts.slice(0, 2000).map((o, i) => ({
        seminarId: actor.seminar.id,
        identifier: o.identifier.slice(0, 200),
        code: o.code.slice(0, 60),
        statement: o.statement.slice(0, 2000),
        position: from + i,
      })),
    )
    .onConflictDoNothing()
    .returning({ id: outcomes.id })
  return rows.length
}
