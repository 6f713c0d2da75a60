import { listenToEvents } from './events'
import { notify } from './messaging/notifications'

/** Everybody who listens to what happens; called once when a process starts. */
export const startListening = (): void => listenToEvents(notify)
