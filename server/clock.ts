/**
 * The application's clock. `JOVREL_NOW` freezes it (pictures, tests); `JOVREL_CLOCK_START` lets it start at another
 * time and tick on, which keeps the demo seminar in the middle of its term.
 */
const frozen = parse('JOVREL_NOW')
const start = parse('JOVREL_CLOCK_START')
const shift = start ? start.getTime() - Date.now() : 0

export function now(): Date {
  return frozen ? new Date(frozen) : new Date(Date.now() + shift)
}

function parse(name: string): Date | null {
  const value = process.env[name]
  if (!value) return null
  const at = new Date(value)
  if (Number.isNaN(at.getTime()))
    throw new Error(`${name} must be a time like 2026-10-14T08:20:00Z, not "${value}"`)
  return at
}
