import { CONTRIBUTING_ROUTES } from './contributing'
import { CONTRIBUTIONS_ROUTES } from './contributions'
import { MARKING_ROUTES } from './marking'
import { PEOPLE_ROUTES } from './people'
import { PLANNING_ROUTES } from './planning'
import { READING_ROUTES } from './reading'
import { REVIEWING_ROUTES } from './reviewing'
import type { Row } from './roles'
import { SEMINAR_ROUTES } from './seminar'
import { WIKI_ROUTES } from './wiki'

// the table in two parts, each tried in a seminar of its own; in this order: later rows meet what earlier ones have changed
export const CONTRIBUTING_TABLE: readonly Row[] = [
  ...READING_ROUTES,
  ...WIKI_ROUTES,
  ...REVIEWING_ROUTES,
  ...SEMINAR_ROUTES,
]
export const TEACHING_TABLE: readonly Row[] = [
  ...CONTRIBUTING_ROUTES,
  ...MARKING_ROUTES,
  ...CONTRIBUTIONS_ROUTES,
  ...PEOPLE_ROUTES,
  ...PLANNING_ROUTES,
]
