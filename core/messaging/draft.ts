/** What stands in a message for what differs from one student to the next. */
export const PLACES = ['{name}', '{missing}', '{activity}', '{due}'] as const
export interface Particulars {
  readonly name: string
  readonly missing: string
  readonly activity: string
  readonly due: string
}

const PLACEHOLDER = /\{(?:name|missing|activity|due)\}/g
const SENTENCE = /[^.!?\n]*[.!?]*[^\S\n]*/g

/**
 * A message as one student gets it. A sentence with a place nothing is known for is left out: it would say
 * nothing, or half of something.
 */
export function fill(template: string, { name, missing, activity, due }: Particulars): string {
  const put: Readonly<Record<string, string>> = {
    '{name}': name,
    '{missing}': missing,
    '{activity}': activity,
    '{due}': due,
  }
  return template
    .replace(SENTENCE, sentence =>
      (sentence.match(PLACEHOLDER) ?? []).some(placeholder => put[placeholder] === '')
        ? ''
        : sentence.replace(PLACEHOLDER, placeholder => put[placeholder]!),
    )
    .replace(/[^\S\n]+$/gm, '')
    .replace(/\n{3,}/g, '\n\n')
    .trim()
}

export interface MissingWork {
  readonly title: string
  readonly toGo: string
  readonly closed: boolean
}

/** What somebody has missing, in a sentence to them; empty where nothing is. */
export function missingSentence(work: readonly MissingWork[]): string {
  if (work.length === 0) return ''
  const parts = work.map(w => `“${w.title}” (${w.toGo})`)
  return parts.length === 1 ? `${parts[0]}` : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`
}

const WORD = /[\p{L}\p{N}]+(?:[’'.-][\p{L}\p{N}]+)*/gu
export const wordsIn = (text: string): number => text.match(WORD)?.length ?? 0

/** The draft one begins from: what is missing is named, nobody is blamed, and there is a way to answer. */
export function firstDraft(about: {
  readonly activity: string | null
  readonly anyMissing: boolean
  readonly closed: boolean
  readonly from: string
}): { readonly subject: string; readonly text: string } {
  const findMiddle = () => {
    if (about.activity)
      return about.closed
        ? `I have not heard from you in {activity}. Still missing is: {missing}. It has closed, but I would rather have it late than not at all.`
        : `I have not heard enough from you in {activity} yet. Still to come: {missing}. It is due {due}.`
    if (about.anyMissing) return 'This is what I am still missing from you: {missing}.'
    return 'I have read what you wrote and have not yet answered you.'
  }
  const middle = findMiddle()
  return {
    subject: about.activity ? `About “${about.activity}”` : 'A word about the seminar',
    text: `Dear {name},\n\n${middle}\n\nIs something in the way? Answer here, a line is enough.\n\n${about.from}`,
  }
}
