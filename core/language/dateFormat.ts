const made = new Map<string, Intl.DateTimeFormat>()

/** A formatter of days and times. Each is made once: making one takes about a hundred times as long as using it. */
export function dateFormat(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = JSON.stringify([locale, options])
  const known = made.get(key)
  if (known) return known
  const format = new Intl.DateTimeFormat(locale, options)
  made.set(key, format)
  return format
}
