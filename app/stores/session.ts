import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import type { SessionView } from '#shared/people/session'
import { useApi } from '../composables/shell/useApi'
import * as peopleEndpoints from '#shared/people/endpoints'

/** Who is signed in. `known` tells "nobody" from "not asked yet". */
export const useSessionStore = readOnlyState(
  defineStore('session', () => {
    const api = useApi() // taken here once: after an await there is no request to bind it to
    const session = ref<SessionView | null>(null)
    const known = ref(false)

    async function load() {
      session.value = (await api.call(peopleEndpoints.readSession)).session
      known.value = true
    }
    async function signIn(email: string, password: string) {
      session.value = (await api.call(peopleEndpoints.signIn, { body: { email, password } })).session
      known.value = true
    }
    async function signInAs(personId: string) {
      await api.call(peopleEndpoints.signInAsDemoPerson, { body: { personId } })
      session.value = (await api.call(peopleEndpoints.readSession)).session
      known.value = true
    }
    /** Ends the session on the server. What is here goes with the page, which is to be left at once. */
    const signOut = () => api.call(peopleEndpoints.signOut)
    return { session, known, load, signIn, signInAs, signOut }
  }),
)
