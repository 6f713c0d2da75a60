import { logError } from '#server/log'
import { defineNitroPlugin } from 'nitropack/runtime'
import { startJobs } from '#server/jobs/queue'

/** The queue lives as long as the process. A database that is away for a moment at the start must not end the process. */
export default defineNitroPlugin(nitro => {
  const url = process.env.DATABASE_URL
  if (!url) return
  const started = startJobs(url).catch((error: Error) => {
    logError('queue', error)
    return async () => {}
  })
  nitro.hooks.hook('close', async () => {
    await (
      await started
    )()
  })
})
