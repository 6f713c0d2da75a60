import { MOST_OUTCOMES, type CriterionDraft, type LevelDraft, type RubricDraft } from './rubricDraft'

/** A learning outcome as CASE has it. */
export interface OutcomeDraft {
  readonly identifier: string
  readonly code: string
  readonly statement: string
}

/**
 * A rubric as a CFRubric of the CASE 1.0 standard (1EdTech Competencies and Academic Standards Exchange): criteria with
 * positions and weights, levels with quality, description and score; its first outcome is the criterion's CFItemURI. What
 * CASE has no place for (further outcomes, scope, ranges, timeliness) stands in an `extensions` object of ours, which others
 * pass over.
 *
 * @param identifiers yields a new GUID for each part
 * @param changedAt ISO time
 */
export function rubricToCase(
  rubric: RubricDraft,
  identifier: string,
  identifiers: () => string,
  changedAt: string,
  outcomes: readonly OutcomeDraft[] = [],
) {
  const uri = (id: string) => `urn:uuid:${id}`
  const link = (o: OutcomeDraft) => ({
    title: o.code || o.statement.slice(0, 60),
    identifier: o.identifier,
    uri: uri(o.identifier),
  })
  return {
    identifier,
    uri: uri(identifier),
    title: rubric.title,
    lastChangeDateTime: changedAt,
    CFRubricCriteria: rubric.criteria.map((c, i) => {
      const id = identifiers()
      const [first, ...further] = c.outcomes
        .flatMap(id => outcomes.filter(o => o.identifier === id))
        .map(link)
      return {
        identifier: id,
        uri: uri(id),
        rubricId: identifier,
        category: c.title,
        description: c.title,
        weight: c.weight,
        position: i + 1,
        lastChangeDateTime: changedAt,
        ...(first && { CFItemURI: first }),
        extensions: {
          scope: c.scope,
          suggestFrom: c.suggestFrom,
          ...(further.length > 0 && { furtherCFItemURIs: further }),
        },
        CFRubricCriterionLevels: c.levels.map((l, j) => {
          const levelId = identifiers()
          return {
            identifier: levelId,
            uri: uri(levelId),
            rubricCriterionId: id,
            quality: l.title,
            description: l.descriptor,
            score: l.points / 100,
            position: j + 1,
            lastChangeDateTime: changedAt,
            ...(l.pointsFrom !== null && { extensions: { scoreFrom: l.pointsFrom / 100 } }),
          }
        }),
      }
    }),
  }
}

export type CaseResult<T> =
  | { readonly kind: 'read'; readonly found: readonly T[] }
  | { readonly kind: 'refused'; readonly code: 'notJson' | 'nothingInIt' }

/** Rubrics of a CASE document: a single CFRubric, a list of them, or a CFPackage with CFRubrics. */
export function rubricsFromCase(text: string): CaseResult<RubricDraft> {
  return readParts(text, 'CFRubrics', value =>
    Array.isArray(value.CFRubricCriteria) ? rubricOf(value) : null,
  )
}

/**
 * Learning outcomes of a CASE document: the CFItems of a CFPackage, a list of CFItems, or one. Items
 * without a statement are passed over.
 */
export function outcomesFromCase(text: string): CaseResult<OutcomeDraft> {
  return readParts(text, 'CFItems', value => {
    const statement = string(value.fullStatement) || string(value.abbreviatedStatement)
    return statement && string(value.identifier)
      ? { identifier: string(value.identifier), code: string(value.humanCodingScheme), statement }
      : null
  })
}

type Json = Record<string, unknown>

function readParts<T>(text: string, list: string, read: (value: Json) => T | null): CaseResult<T> {
  let json: unknown
  try {
    json = JSON.parse(text.replace(/^\ufeff/, ''))
  } catch (error) {
    if (error instanceof SyntaxError) return { kind: 'refused', code: 'notJson' }
    throw error
  }
  const whole = (isObject(json) && isObject(json.CFPackage) ? json.CFPackage : json) as unknown
  const findParts = () => {
    if (Array.isArray(whole)) return whole
    if (isObject(whole) && Array.isArray(whole[list])) return whole[list] as unknown[]
    return [whole]
  }
  const parts = findParts()
  const found = parts.flatMap(part => {
    const value = isObject(part) ? read(part) : null
    return value ? [value] : []
  })
  return found.length > 0 ? { kind: 'read', found } : { kind: 'refused', code: 'nothingInIt' }
}

function rubricOf(value: Json): RubricDraft {
  return {
    title: string(value.title).slice(0, 200) || 'Rubric',
    criteria: byPosition(value.CFRubricCriteria).map(criterionOf),
  }
}

function criterionOf(value: Json): CriterionDraft {
  const own = isObject(value.extensions) ? value.extensions : {}
  const levels = byPosition(value.CFRubricCriterionLevels).map((l): LevelDraft => {
    const extra = isObject(l.extensions) ? l.extensions : {}
    return {
      title: string(l.quality).slice(0, 120),
      descriptor: string(l.description).slice(0, 2000),
      points: hundredths(l.score) ?? 0,
      pointsFrom: hundredths(extra.scoreFrom),
    }
  })
  const further = Array.isArray(own.furtherCFItemURIs) ? (own.furtherCFItemURIs as unknown[]) : []
  const links = [value.CFItemURI, ...further]
  return {
    title: (string(value.category) || string(value.description)).slice(0, 200),
    scope: own.scope === 'group' ? 'group' : 'own',
    weight:
      typeof value.weight === 'number' &&
      Number.isInteger(value.weight) &&
      value.weight >= 1 &&
      value.weight <= 100
        ? value.weight
        : 1,
    suggestFrom: own.suggestFrom === 'timeliness' ? 'timeliness' : null,
    outcomes: [...new Set(links.map(l => (isObject(l) ? string(l.identifier).slice(0, 200) : '')))]
      .filter(id => id !== '')
      .slice(0, MOST_OUTCOMES),
    levels: [...levels].sort((a, b) => a.points - b.points),
  }
}

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
const string = (value: unknown): string => (typeof value === 'string' ? value.trim() : '')
const hundredths = (value: unknown): number | null =>
  typeof value === 'number' && Number.isFinite(value) && value >= 0 && value <= 10_000
    ? Math.round(value * 100)
    : null
const byPosition = (list: unknown): Json[] =>
  (Array.isArray(list) ? list : [])
    .filter(isObject)
    .sort((a, b) => Number(a.position ?? 0) - Number(b.position ?? 0))
