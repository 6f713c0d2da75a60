import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'

/** Where an activity is marked: where peers' scores come first, there is a desk for these. */
export const deskOf = (kind: ActivityKind): { readonly path: 'desk' | 'peers'; readonly name: string } =>
  KINDS[kind].markedBy === 'peers'
    ? { path: 'peers', name: 'review desk' }
    : { path: 'desk', name: 'marking desk' }
