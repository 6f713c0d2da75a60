import { defineNitroPlugin } from 'nitropack/runtime'
import { now } from '#server/clock'
import { beforeEveryCommit } from '#server/database/connection'
import { keepOwnChanges } from '#server/services/standing/keepStandings'

/** Where students stand is judged anew in the transaction that changed it, whichever that was. */
export default defineNitroPlugin(() => beforeEveryCommit(tx => keepOwnChanges(tx, now())))
