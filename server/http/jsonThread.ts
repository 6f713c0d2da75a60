import { answering } from '#server/threads/answering'
import { parseJson } from './json'

const parseBody = (raw: Uint8Array): unknown => parseJson(Buffer.from(raw).toString())

const tasks = { parseBody }
export type JsonTasks = typeof tasks

export default answering(tasks)
