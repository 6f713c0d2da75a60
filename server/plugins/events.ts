import { defineNitroPlugin } from 'nitropack/runtime'
import { startListening } from '#server/services/listeners'

/** People are told of what happens, by whichever part of the server it is said. */
export default defineNitroPlugin(startListening)
