/** How a mark is shown: points, percent, a letter of a grading scale, done or not, or no mark at all. */
export const SCALES = ['points', 'percent', 'letter', 'complete', 'none'] as const
export type Scale = (typeof SCALES)[number]
