import Bowser from 'bowser'

/** A browser as its owner knows it, from what it calls itself: “Firefox on Linux”. */
export function browserName(agent: string): string {
  if (agent === '') return 'An unknown browser'
  const parsed = Bowser.parse(agent)
  const name = parsed.browser.name || 'A browser'
  return parsed.os.name ? `${name} on ${parsed.os.name}` : name
}
