import type { ZodError } from 'zod'
import type { ProblemDetails } from '#shared/http/problem'

const TITLES: Readonly<Record<number, string>> = {
  400: 'Not understood',
  401: 'Not signed in',
  403: 'Not yours to do',
  404: 'Not found',
  409: 'Changed meanwhile',
  413: 'Too large',
  422: 'Something to correct',
  429: 'Too often',
  500: 'Our fault',
  503: 'Not now',
}

/** An expected failure: becomes the answer's problem details, with a sentence a person can act on. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly sentence: string,
    readonly extra: { readonly fields?: Record<string, string>; readonly theirs?: unknown } = {},
  ) {
    super(sentence)
    this.name = 'Problem'
  }

  details(): ProblemDetails {
    return {
      type: 'about:blank',
      title: TITLES[this.status] ?? 'Problem',
      status: this.status,
      code: this.code,
      detail: this.sentence,
      ...this.extra,
    }
  }
}

/** A refused input, with the sentence standing at its field. */
export const refusedField = (field: string, code: string, sentence: string, status = 422): Problem =>
  new Problem(status, code, sentence, { fields: { [field]: sentence } })

/** Where a contract has no sentence of its own, the library's message is for programmers. */
const FOR_PROGRAMMERS = /^(?:Too (?:big|small)|Invalid|Unrecognized|Expected)\b/
const PLAIN: Readonly<Record<string, string>> = {
  too_big: 'This is longer or larger than what fits here.',
  too_small: 'This is shorter or smaller than what is needed here.',
}
const sentenceOf = ({ code, message }: ZodError['issues'][number]): string =>
  FOR_PROGRAMMERS.test(message) ? (PLAIN[code] ?? 'This is missing, or not what is asked for here.') : message

/** Sentences of a contract that was not met, each at its field; the contracts word them. */
export function problemOf(error: ZodError): Problem {
  const fields: Record<string, string> = {}
  for (const issue of error.issues) fields[issue.path.join('.') || 'body'] ??= sentenceOf(issue)
  const [first] = Object.values(fields)
  return new Problem(422, 'contract', first ?? 'Something in this request could not be read.', { fields })
}
