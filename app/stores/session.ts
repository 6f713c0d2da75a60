import { defineStore } from 'pinia'
import type { SessionView } from '#shared/people/session'
import { useApi } from '../composables/shell/useApi'

/** Who is signed in. `known` tells "nobody" from "not asked yet". */
export const useSessionStore = defineStore('session', () => {
  const api = useApi() // taken here once: after an await there is no request to bind it to
  const session = ref<SessionView | null>(null)
  const known = ref(false)

  async function load() {
    session.value = (await api.get<{ session: SessionView | null }>('/api/session')).session
    known.value = true
  }
  async function signIn(email: string, password: string) {
    session.value = (await api.post<{ session: SessionView }>('/api/session', { email, password })).session
    known.value = true
  }
  async function signInAs(personId: string) {
    await api.post('/api/demo/session', { personId })
    session.value = (await api.get<{ session: SessionView | null }>('/api/session')).session
    known.value = true
  }
  async function signOut() {
    await api.remove('/api/session')
    session.value = null
  }
  return { session, known, load, signIn, signInAs, signOut }
})
