import type { Row } from './roles'
import { MANAGERS, MEMBERS, STAFF, base64, calm, key, managersGet, seminar, text } from './roles'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

/** What each role is answered at the routes of reading. */
export const READING_ROUTES: readonly Row[] = [
  { endpoint: readingEndpoints.readReading, path: calm(), expected: MEMBERS },
  {
    endpoint: readingEndpoints.readTextParts,
    path: calm('/parts?from=1&to=2'),
    expected: MEMBERS,
  },
  { endpoint: readingEndpoints.findInText, path: calm('/find?q=harbour'), expected: MEMBERS },
  {
    endpoint: readingEndpoints.downloadAnnotations,
    path: calm('/annotations'),
    expected: MEMBERS,
  },
  {
    endpoint: readingEndpoints.importAnnotations,
    path: calm('/annotations'),
    body: () => ({ key: key(), json: '[]', trial: true }),
    expected: [401, 404, 403, 422, 422, 422, 422],
  },
  {
    endpoint: readingEndpoints.downloadTranscript,
    path: calm('/transcript'),
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  { endpoint: readingEndpoints.readAnnotationAddress, path: calm('/tools'), expected: MEMBERS },
  {
    endpoint: readingEndpoints.makeAnnotationAddress,
    path: calm('/tools'),
    body: () => ({}),
    expected: MEMBERS,
  },
  { endpoint: readingEndpoints.closeAnnotationAddress, path: calm('/tools'), expected: MEMBERS },
  {
    endpoint: readingEndpoints.settleQuestion,
    path: async w => `/api/contributions/${(await w.contribution('solongo', w.calm.id, 'note')).id}/settled`,
    body: () => ({ settled: true }),
    expected: [401, 404, 403, 409, 409, 409, 409],
  },
  { endpoint: readingEndpoints.readLibraryTexts, path: seminar('/texts'), expected: STAFF },
  {
    endpoint: readingEndpoints.addText,
    path: seminar('/texts'),
    body: () => ({ key: key(), id: key(), name: 'a.md', base64: base64('Words.') }),
    expected: MANAGERS,
  },
  {
    endpoint: readingEndpoints.changeText,
    path: text(),
    body: () => ({ credit: 'ours' }),
    expected: MANAGERS,
  },
  {
    endpoint: readingEndpoints.addTextVersion,
    path: text('/versions'),
    body: () => ({ key: key(), name: 'a.bin', base64: base64('\u0000') }),
    expected: managersGet(422),
  },
  { endpoint: readingEndpoints.readSupplier, path: seminar('/supplier'), expected: MANAGERS },
  {
    endpoint: readingEndpoints.takeFromSupplier,
    path: seminar('/supplier'),
    body: () => ({ key: key(), id: key(), bookId: 'none', from: 1, to: 1 }),
    expected: managersGet(422),
  },
]
