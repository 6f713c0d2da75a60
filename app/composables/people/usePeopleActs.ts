import { capital, inWords, plural } from '#core/language'
import type { CodeWrite, JoiningCodeView, PersonView } from '#shared/people/people'
import * as peopleEndpoints from '#shared/people/endpoints'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'

/** What is done with the people of a seminar, each act said, and taken back where it can be. */
export function usePeopleActs(seminarId: string, refresh: () => Promise<void>, invited: () => void) {
  const api = useApi()
  const notices = useNotices()
  const { attempt } = useSending()

  /** @returns whether it was done; why not is said */
  const change = (
    person: PersonView,
    part: Partial<Pick<PersonView, 'role' | 'sectionId' | 'state'>>,
    said: string,
  ) =>
    attempt(async () => {
      const before = { role: person.role, sectionId: person.sectionId, state: person.state }
      await api.call(peopleEndpoints.changePerson, {
        params: { seminarId, enrolmentId: person.id },
        body: part,
      })
      await refresh()
      const back = Object.fromEntries(
        Object.keys(part).map(field => [field, before[field as keyof typeof before]]),
      )
      notices.say(said, {
        label: 'Undo',
        run: async () => {
          await attempt(() =>
            api.call(peopleEndpoints.changePerson, {
              params: { seminarId, enrolmentId: person.id },
              body: back,
            }),
          )
          await refresh()
        },
      })
      return true
    }).then(done => {
      if (done === null) void refresh()
      return done !== null
    })
  const invite = (ids: readonly string[]) =>
    attempt(async () => {
      const { invited: count } = await api.call(peopleEndpoints.invitePeople, {
        params: { seminarId },
        body: {
          key: newKey(),
          enrolmentIds: ids,
        },
      })
      invited()
      await refresh()
      notices.say(
        `${capital(inWords(count))} ${plural(count, 'invitation is', 'invitations are')} on the way.`,
      )
    })
  const makeCode = (code: Omit<CodeWrite, 'key'>) =>
    attempt(async () => {
      await api.call(peopleEndpoints.makeJoiningCode, {
        params: { seminarId },
        body: { key: newKey(), ...code },
      })
      await refresh()
    })
  const revoke = (code: JoiningCodeView) =>
    attempt(async () => {
      await api.call(peopleEndpoints.closeJoiningCode, {
        params: { seminarId, codeId: code.id },
      })
      await refresh()
      notices.say(`${code.code} lets nobody in any more.`)
    })

  return { change, invite, makeCode, revoke }
}
