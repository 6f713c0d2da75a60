import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import type { SessionView } from '#shared/people/session'
import { useApi } from '../composables/shell/useApi'
import * as peopleEndpoints from '#shared/people/endpoints'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'
import { showPasskey } from '../composables/people/passkeyDevice'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'

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
    /** @returns whether the second step is asked for before one is in, and whether a passkey can be it */
    async function signIn(email: string, password: string) {
      const { session: begun, ...asked } = await api.call(peopleEndpoints.signIn, {
        body: { email, password },
      })
      session.value = begun
      known.value = true
      return asked
    }
    async function signInByPasskey() {
      const { options } = await api.call(passkeyEndpoints.beginSignInByPasskey)
      const credential = await showPasskey(options)
      session.value = (await api.call(passkeyEndpoints.signInByPasskey, { body: { credential } })).session
      known.value = true
    }
    async function signInByCode(code: string) {
      session.value = (await api.call(secondFactorEndpoints.signInByCode, { body: { code } })).session
    }
    async function signInAs(personId: string) {
      await api.call(peopleEndpoints.signInAsDemoPerson, { body: { personId } })
      session.value = (await api.call(peopleEndpoints.readSession)).session
      known.value = true
    }
    /** Ends the session on the server. What is here goes with the page, which is to be left at once. */
    const signOut = () => api.call(peopleEndpoints.signOut)
    return { session, known, load, signIn, signInByCode, signInByPasskey, signInAs, signOut }
  }),
)
