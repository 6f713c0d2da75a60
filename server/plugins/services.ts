import { defineNitroPlugin } from 'nitropack/runtime'
import { startServices } from '#server/services/startServices'

/** What lower areas leave to upper ones: who is told of what happens, and what goes otherwise in a kind of activity. */
export default defineNitroPlugin(startServices)
