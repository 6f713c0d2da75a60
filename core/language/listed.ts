const SERIES = new Intl.ListFormat('en-GB')
/** “one, two and three”. */
export const listed = (parts: readonly string[]): string => SERIES.format(parts)
