import { defineNitroPlugin } from 'nitropack/runtime'
import { persistently } from '#server/jobs/persistently'
import { startJobs } from '#server/jobs/queue'

/** The queue lives as long as the process, and begins as soon as there is a database. */
export default defineNitroPlugin(nitro => {
  const url = process.env.DATABASE_URL
  if (!url) return
  let stop = async () => {}
  const giveUp = persistently('queue', async () => {
    stop = await startJobs(url)
  })
  nitro.hooks.hook('close', async () => {
    giveUp()
    await stop()
  })
})
