import { defineNitroPlugin } from 'nitropack/runtime'
import { logError } from '#server/log'

/** An error nobody caught leaves a process in a state nobody knows: it is logged, and the process ends to be started anew. */
export default defineNitroPlugin(() => {
  process.on('uncaughtException', error => {
    logError('process', error)
    process.exit(1)
  })
})
