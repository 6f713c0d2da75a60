import { logError } from '#server/log'
import { defineNitroPlugin } from 'nitropack/runtime'
import { useDatabase } from '#server/database/connection'
import { makeSetupCode } from '#server/services/people/setupCode'

/** Prints the code for the first account where an installation has none. */
export default defineNitroPlugin(() => {
  if (!process.env.DATABASE_URL) return
  makeSetupCode(useDatabase()).then(
    code => {
      // on the error stream, because that is what a service's console shows of a server
      if (code) console.error(`This Jovrel has no account yet. The code for the first one: ${code}`)
    },
    error => logError('code for the first account', error),
  )
})
