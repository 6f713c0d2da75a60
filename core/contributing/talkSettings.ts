/** How people take part in a talk; all of it can be changed while it goes on, and nothing written is lost by it. */
export interface TalkSettings {
  readonly threads: 'everyone' | 'staff' // who opens threads: everyone under one scenario, or staff with questions that all answer
  readonly apart: Apart // who talks with whom: all who take part, or each section or group by itself
  readonly replies: 'any' | 'top' // replies to replies, or to the opening post only
  readonly namesHidden: boolean // from classmates, by an alias in each thread; staff always know
  readonly approval: boolean // staff see everything first
  readonly withdrawMinutes: number // how long one's own can be withdrawn
  readonly attach: AttachLimits
  readonly opening: 'staff' | 'author' | 'class' // of a journal: who reads along, or that each author decides
  readonly layout: 'stream' | 'own' // of a blog: one for the class, or each their own
  readonly indexBy: 'week' | 'month'
}
export const APART = ['together', 'sections', 'groups'] as const
export type Apart = (typeof APART)[number]
export const ATTACHABLE = ['picture', 'paper', 'document', 'recording'] as const
export type Attachable = (typeof ATTACHABLE)[number]
export interface AttachLimits {
  readonly most: number
  readonly megabytes: number
  readonly types: readonly Attachable[]
}

export const USUAL_TALK: TalkSettings = {
  threads: 'everyone',
  apart: 'together',
  replies: 'any',
  namesHidden: false,
  approval: false,
  withdrawMinutes: 30,
  attach: { most: 4, megabytes: 10, types: ATTACHABLE },
  opening: 'staff',
  layout: 'stream',
  indexBy: 'week',
}

/**
 * The talk settings among whatever else is set, with the usual where nothing is; withdrawing follows editing unless it is
 * set apart. Nothing but talk settings is in the answer.
 */
export function talkOf(settings: Partial<TalkSettings> & { readonly editMinutes: number }): TalkSettings {
  const all: TalkSettings = { ...USUAL_TALK, withdrawMinutes: settings.editMinutes, ...settings }
  // one entry for each key of the settings
  return Object.fromEntries(
    Object.keys(USUAL_TALK).map(key => [key, all[key as keyof TalkSettings]]),
  ) as unknown as TalkSettings
}
