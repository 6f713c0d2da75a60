import { randomUUID } from 'node:crypto'
import * as httpEndpoints from '#shared/http/endpoints'
import type { Row } from './roles'
import { MANAGERS, MEMBERS, STAFF, base64, key, managersGet, rules, seminar, settings, term } from './roles'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'
import * as accessLogEndpoints from '#shared/people/accessLogEndpoints'
import * as accountEndpoints from '#shared/people/accountEndpoints'
import * as peopleEndpoints from '#shared/people/endpoints'
import * as t from '#server/database/schema'
import { people } from '#demo/people'

const passkey = { id: 'AAAA', rawId: 'AAAA', type: 'public-key' }
const madePasskey = { ...passkey, response: { clientDataJSON: 'AAAA', attestationObject: 'AAAA' } }
const shownPasskey = {
  ...passkey,
  response: { clientDataJSON: 'AAAA', authenticatorData: 'AAAA', signature: 'AAAA' },
}

/** What each role is answered at the routes of people. */
export const PEOPLE_ROUTES: readonly Row[] = [
  {
    endpoint: httpEndpoints.readOpenApi,
    path: () => '/api/openapi.json',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.readInstallation,
    path: () => '/api/installation',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.readAccount,
    path: () => '/api/account',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.makeFirstAccount,
    path: () => '/api/account',
    body: () => ({
      givenName: 'A',
      familyName: 'B',
      email: 'a@northmere.example',
      password: 'long enough',
      code: 'AAAA',
    }),
    expected: [409, 409, 409, 409, 409, 409, 409],
  },
  {
    endpoint: peopleEndpoints.chooseMail,
    path: () => '/api/account/mail',
    body: () => ({ mailChoice: 'daily' }),
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: accountEndpoints.changeName,
    path: () => '/api/account/name',
    body: (_, role) => {
      if (role === 'observer') return { givenName: 'Ottoline', familyName: 'Varga' }
      const person = people.find(p => p.key === role)
      return { givenName: person?.given ?? 'Odd', familyName: person?.family ?? 'Outsider' }
    },
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: accountEndpoints.changePassword,
    path: () => '/api/account/password',
    body: () => ({ current: 'not this one', password: 'stone quay silt' }),
    expected: [401, 422, 422, 422, 422, 422, 422],
  },
  {
    endpoint: secondFactorEndpoints.readSecondFactor,
    path: () => '/api/account/second-factor',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  ...[
    { endpoint: secondFactorEndpoints.beginSecondFactor, path: () => '/api/account/second-factor' },
    { endpoint: secondFactorEndpoints.renewRecoveryCodes, path: () => '/api/account/second-factor/codes' },
    { endpoint: secondFactorEndpoints.endSecondFactor, path: () => '/api/account/second-factor/end' },
  ].map(row => ({
    ...row,
    body: () => ({ password: 'not this one' }),
    expected: [401, 422, 422, 422, 422, 422, 422] as const,
  })),
  {
    endpoint: secondFactorEndpoints.confirmSecondFactor, // none is being set up
    path: () => '/api/account/second-factor',
    body: () => ({ code: '123456' }),
    expected: [401, 422, 422, 422, 422, 422, 422],
  },
  {
    endpoint: secondFactorEndpoints.signInByCode, // no password was shown before
    path: () => '/api/session/code',
    body: () => ({ code: '123456' }),
    expected: [401, 401, 401, 401, 401, 401, 401],
  },
  ...[
    { endpoint: passkeyEndpoints.beginPasskey, path: () => '/api/account/passkeys/begin' },
    { endpoint: passkeyEndpoints.removePasskey, path: () => `/api/account/passkeys/${randomUUID()}/remove` },
  ].map(row => ({
    ...row,
    body: () => ({ password: 'not this one' }),
    expected: [401, 422, 422, 422, 422, 422, 422] as const,
  })),
  {
    endpoint: passkeyEndpoints.addPasskey, // at an address without a name
    path: () => '/api/account/passkeys',
    body: () => ({ title: 'A phone', credential: madePasskey }),
    expected: [401, 409, 409, 409, 409, 409, 409],
  },
  {
    endpoint: passkeyEndpoints.beginSignInByPasskey,
    path: () => '/api/session/passkey/begin',
    expected: [409, 409, 409, 409, 409, 409, 409],
  },
  {
    endpoint: passkeyEndpoints.signInByPasskey,
    path: () => '/api/session/passkey',
    body: () => ({ credential: shownPasskey }),
    expected: [409, 409, 409, 409, 409, 409, 409],
  },
  {
    endpoint: accountEndpoints.changeEmail,
    path: () => '/api/account/email',
    body: () => ({ email: 'other@northmere.example', password: 'not this one' }),
    expected: [401, 422, 422, 422, 422, 422, 422],
  },
  {
    endpoint: accountEndpoints.askForConfirmation,
    path: () => '/api/account/confirmation',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: accountEndpoints.readAddressLink,
    path: () => '/api/address/not-a-link-that-was-ever-sent',
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: accountEndpoints.confirmAddress,
    path: () => '/api/address/not-a-link-that-was-ever-sent',
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: accountEndpoints.readSessions,
    path: () => '/api/account/sessions',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: accountEndpoints.endSession, // somebody else's
    path: async w => {
      const [session] = await w.db
        .insert(t.sessions)
        .values({
          digest: key(),
          personId: (await w.enrolment('solongo')).personId,
          expiresAt: new Date(Date.now() + 60_000),
        })
        .returning()
      return `/api/account/sessions/${session!.id}`
    },
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: accountEndpoints.endOtherSessions,
    path: () => '/api/account/sessions',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.makeCalendar,
    path: () => '/api/account/calendar',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.closeCalendar,
    path: () => '/api/account/calendar',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.askForPassword,
    path: () => '/api/password',
    body: () => ({ email: 'nobody@northmere.example' }),
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.readPasswordLink,
    path: () => '/api/password/not-a-link-that-was-ever-sent',
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: peopleEndpoints.setPassword,
    path: () => '/api/password/not-a-link-that-was-ever-sent',
    body: () => ({ password: 'long enough' }),
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: peopleEndpoints.readJoiningCode,
    path: () => '/api/join/KELP-4QX',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.joinSeminar,
    path: () => '/api/join/ZZZZ-999',
    body: () => ({ account: null }),
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: accessLogEndpoints.readAccessLog,
    path: () => '/api/access-log',
    expected: [401, 403, 403, 403, 403, 403, 200],
  },
  {
    endpoint: accessLogEndpoints.readDueFailures,
    path: () => '/api/due-failures',
    expected: [401, 403, 403, 403, 403, 403, 200],
  },
  {
    endpoint: messagingEndpoints.readMailroom,
    path: () => '/api/mailroom',
    expected: [401, 403, 403, 403, 403, 403, 200],
  },
  {
    endpoint: peopleEndpoints.makeSeminar,
    path: () => '/api/seminars',
    body: () => ({ ...term, id: key(), code: 'N 1', title: 'New', college: '', timeZone: 'Europe/Oslo' }),
    expected: [401, 200, 403, 403, 403, 403, 200],
    withdrawn: 403,
  },
  { endpoint: peopleEndpoints.readSettings, path: seminar('/settings'), expected: MANAGERS },
  {
    endpoint: peopleEndpoints.saveSettings,
    path: seminar('/settings'),
    body: () => ({ key: key(), baseVersion: 99, settings }),
    expected: managersGet(409),
  },
  {
    endpoint: peopleEndpoints.archiveSeminar,
    path: seminar('/archived'),
    body: () => ({ archived: false }),
    expected: MANAGERS,
  },
  { endpoint: peopleEndpoints.endSilence, path: seminar('/silence'), expected: MANAGERS },
  {
    endpoint: peopleEndpoints.copySeminar,
    path: seminar('/copy'),
    body: () => ({ ...term, id: key(), code: 'N 2', title: 'Again' }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.lookAsStudent,
    path: seminar('/students-eye'),
    body: () => ({ on: false }),
    expected: STAFF,
  },
  { endpoint: peopleEndpoints.readPeople, path: seminar('/people'), expected: STAFF },
  {
    endpoint: peopleEndpoints.addPerson,
    path: seminar('/people'),
    body: (_, role) => ({
      key: key(),
      givenName: 'New',
      familyName: 'Person',
      email: `new.${role}@northmere.example`,
      role: 'student',
      sectionId: null,
      invite: false,
    }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.invitePeople,
    path: seminar('/people/invite'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.changePerson,
    path: async w => `/api/seminars/${w.seminar.id}/people/${(await w.enrolment('nico')).id}`,
    body: () => ({ state: 'active' }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.previewRoster,
    path: seminar('/roster/preview'),
    body: () => ({ name: 'r.csv', base64: base64('name,email\nNew Name,nn@northmere.example\n') }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.importRoster,
    path: seminar('/roster'),
    body: () => ({
      key: key(),
      name: 'r.csv',
      base64: base64('name,email\nNew Name,nn@northmere.example\n'),
      withdrawMissing: false,
      invite: false,
    }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.makeJoiningCode,
    path: seminar('/codes'),
    body: () => ({ key: key(), role: 'student', sectionId: null, days: 3, most: 5 }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.closeJoiningCode,
    path: w => `/api/seminars/${w.seminar.id}/codes/${key()}`,
    expected: managersGet(404),
  },
  { endpoint: peopleEndpoints.readGroups, path: seminar('/groups'), expected: MEMBERS },
  {
    endpoint: peopleEndpoints.makeGroupPlan,
    path: seminar('/groups'),
    body: () => ({ key: key(), title: 'Three', rules, topics: [], selfJoin: false, most: null }),
    expected: MANAGERS,
  },
  {
    endpoint: peopleEndpoints.saveGroupPlan,
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}`,
    body: () => ({
      key: key(),
      baseVersion: 1,
      title: 'T',
      selfJoin: false,
      most: null,
      groups: [{ id: key(), title: 'G', memberIds: [] }],
    }),
    expected: managersGet(404),
  },
  {
    endpoint: peopleEndpoints.deleteGroupPlan,
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}`,
    expected: managersGet(404),
  },
  {
    endpoint: peopleEndpoints.dealGroups,
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}/deal`,
    body: () => ({ key: key(), baseVersion: 1, rules }),
    expected: managersGet(404),
  },
  {
    endpoint: peopleEndpoints.chooseGroup,
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}/mine`,
    body: () => ({ groupId: null }),
    expected: [401, 404, 403, 404, 404, 403, 403],
  },
]
