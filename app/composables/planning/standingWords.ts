import type { Standing } from '#core/standing/standing'

export const STANDING_WORDS: Readonly<Record<Standing, string>> = {
  nothing: 'nothing yet',
  underWay: 'under way',
  ready: 'ready',
  held: 'held',
  returned: 'returned',
}
