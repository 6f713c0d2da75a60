import type { Row } from './roles'
import {
  MEMBERS,
  OF_GROUP,
  STAFF,
  WRITERS_OF_GROUP,
  chain,
  chainComment,
  city,
  key,
  seminar,
  terms,
} from './roles'
import { doc } from '#server/testing/world'
import * as lexiconEndpoints from '#shared/kinds/lexicon/endpoints'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

/** What each role is answered at the routes of wiki. */
export const WIKI_ROUTES: readonly Row[] = [
  { endpoint: wikiEndpoints.readWiki, path: city('/wiki'), expected: MEMBERS },
  {
    endpoint: wikiEndpoints.makePage,
    path: city('/wiki/pages'),
    body: () => ({ id: key(), groupId: key(), title: 'Elsewhere', parentId: null }),
    expected: [401, 404, 403, 404, 404, 404, 404],
  },
  {
    endpoint: wikiEndpoints.readWikiShares,
    path: async w =>
      `/api/activities/${w.city.id}/wiki/shares?group=${(await w.page(w.city.id, 'Qasr el-Mina', 'The chain')).groupId}`,
    expected: OF_GROUP(),
  },
  {
    endpoint: wikiEndpoints.downloadWiki,
    path: async w =>
      `/api/activities/${w.city.id}/wiki/export?as=markdown&group=${(await w.page(w.city.id, 'Qasr el-Mina', 'The chain')).groupId}`,
    expected: OF_GROUP(),
  },
  {
    endpoint: wikiEndpoints.importPages,
    path: city('/wiki/import'),
    body: () => ({ key: key(), groupId: key(), files: [{ name: 'a.md', text: '# A' }], pictures: [] }),
    expected: [401, 404, 403, 404, 404, 404, 404],
  },
  { endpoint: wikiEndpoints.readPage, path: chain(), expected: OF_GROUP() },
  { endpoint: wikiEndpoints.changePage, path: chain(), body: () => ({}), expected: WRITERS_OF_GROUP() },
  {
    endpoint: wikiEndpoints.claimPage,
    path: async w => `/api/pages/${(await w.page(w.city.id, 'Qasr el-Mina', 'The interpreter')).id}/claimed`,
    body: () => ({ claimed: true }),
    expected: [401, 404, 403, 404, 409, 422, 422],
  },
  {
    endpoint: wikiEndpoints.removePage,
    path: chain('/removed'),
    body: () => ({ removed: false }),
    expected: WRITERS_OF_GROUP(422),
  },
  {
    endpoint: wikiEndpoints.showWriting,
    path: chain('/writing'),
    body: () => ({ writing: false }),
    expected: WRITERS_OF_GROUP(),
  },
  {
    endpoint: wikiEndpoints.savePageDraft,
    path: chain('/draft'),
    body: () => ({ doc: doc('A draft.'), base: 5, baseVersion: null }),
    expected: WRITERS_OF_GROUP(),
  },
  { endpoint: wikiEndpoints.discardPageDraft, path: chain('/draft'), expected: WRITERS_OF_GROUP() },
  {
    endpoint: wikiEndpoints.savePageVersion,
    path: chain('/versions'),
    body: () => ({ key: key(), doc: doc('A version.'), base: 99 }),
    expected: WRITERS_OF_GROUP(422),
  },
  {
    endpoint: wikiEndpoints.readPageVersion,
    path: chain('/versions/1'),
    expected: OF_GROUP(),
  },
  {
    endpoint: wikiEndpoints.restorePageVersion,
    path: chain('/versions/1/restore'),
    body: () => ({ key: key(), base: 99 }),
    expected: WRITERS_OF_GROUP(409),
  },
  {
    endpoint: wikiEndpoints.commentOnPage,
    path: chain('/comments'),
    body: () => ({ key: key(), doc: doc(''), passage: null, parentId: null }),
    expected: WRITERS_OF_GROUP(422),
  },
  {
    endpoint: wikiEndpoints.resolveComment,
    path: chainComment('/resolved'),
    body: () => ({ number: null }),
    expected: WRITERS_OF_GROUP(),
  },
  {
    endpoint: lexiconEndpoints.downloadTerms,
    path: terms('/lexicon/export?as=csv'),
    expected: MEMBERS,
  },
  {
    endpoint: lexiconEndpoints.importTerms,
    path: terms('/lexicon/import'),
    body: () => ({ key: key(), text: 'term,definition\na,b', trial: true }),
    expected: STAFF,
  },
  { endpoint: lexiconEndpoints.readTerms, path: seminar('/terms'), expected: MEMBERS },
  {
    endpoint: lexiconEndpoints.readTerm,
    path: async w =>
      `/api/seminars/${w.seminar.id}/terms/${(await w.contribution('solongo', w.terms.id, 'term')).id}`,
    expected: MEMBERS,
  },
]
