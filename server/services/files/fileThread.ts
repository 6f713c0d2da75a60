import { answering } from '#server/threads/answering'
import { readAttachment } from './readAttachment'

/** What is done with files nobody has looked at: they may be made to take any time and memory. */
const tasks = { readAttachment }
export type FileTasks = typeof tasks

export default answering(tasks)
