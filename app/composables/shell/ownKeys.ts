/** Keys somebody has changed: the sign that is pressed, by the sign a page names. '' where the key is switched off. */
export type OwnKeys = Readonly<Record<string, string>>

/** Whether what a browser kept is that, and not something older or broken. */
export const areOwnKeys = (kept: unknown): kept is OwnKeys =>
  typeof kept === 'object' && kept !== null && Object.values(kept).every(sign => typeof sign === 'string')

/** What is pressed for the key a page names; '' where it is switched off. */
export const pressedFor = (own: OwnKeys, named: string): string => own[named] ?? named

/** The key a page names that is meant by what was pressed; null where none is. */
export function namedBy(own: OwnKeys, pressed: string): string | null {
  const changed = Object.keys(own).find(named => own[named] === pressed)
  return changed ?? (pressed in own ? null : pressed)
}

/**
 * A sign is given to a key. The key that had it gets what this one had, so that no sign ever stands for two and none is lost.
 * @param chosen one sign, or '' to switch the key off
 */
export function giveSign(own: OwnKeys, named: string, chosen: string): OwnKeys {
  const had = pressedFor(own, named)
  const other = chosen === '' ? null : namedBy(own, chosen)
  const next = { ...own, [named]: chosen, ...(other !== null && other !== named && { [other]: had }) }
  return Object.fromEntries(Object.entries(next).filter(([key, sign]) => key !== sign))
}
