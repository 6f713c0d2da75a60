import { useSessionStore } from '../stores/session'

/** Everything but signing in is for people who are signed in; afterwards one lands where one wanted to go. */
export default defineNuxtRouteMiddleware(async to => {
  const store = useSessionStore()
  if (!store.known) await store.load()
  // a joining code and links sent by mail let people in who have no account yet
  if (/^\/(join|password|address)(\/|$)/.test(to.path)) return
  if (!store.session && to.path !== '/sign-in')
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (store.session && to.path === '/sign-in') return navigateTo('/')
})
