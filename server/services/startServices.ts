import { KIND_HOOKS } from '#server/kinds/hooks'
import { registerKinds } from './contributing'
import { listenToEvents } from './events'
import { notify } from './messaging/notifications'

/** What lower areas leave to upper ones is made known; called once when a process starts. */
export function startServices(): void {
  registerKinds(KIND_HOOKS)
  listenToEvents(notify)
}
