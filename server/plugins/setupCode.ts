import { defineNitroPlugin } from 'nitropack/runtime'
import { useDatabase } from '#server/database/connection'
import { persistently } from '#server/jobs/persistently'
import { makeSetupCode } from '#server/services/people/setupCode'

/** Prints the code for the first account where an installation has none. */
export default defineNitroPlugin(() => {
  if (!process.env.DATABASE_URL) return
  persistently('code for the first account', async () => {
    const code = await makeSetupCode(useDatabase())
    // on the error stream, because that is what a service's console shows of a server
    if (code) console.error(`This Jovrel has no account yet. The code for the first one: ${code}`)
  })
})
