import type { H3Event } from 'h3'
import { requirePerson } from '#server/access/session'
import { Problem } from './problem'

const MOST = 3
const running = new Map<string, number>() // by person

/** Does what takes long (a file made, an archive, an import); of one person only a few at a time. */
export async function longAct<T>(event: H3Event, work: () => Promise<T>): Promise<T> {
  const { id } = await requirePerson(event)
  const own = running.get(id) ?? 0
  if (own >= MOST)
    throw new Problem(
      429,
      'longActs',
      'Three of your files are still being made or read. Wait until one of them is done, then try again.',
    )
  running.set(id, own + 1)
  try {
    return await work()
  } finally {
    const left = running.get(id)! - 1
    if (left > 0) running.set(id, left)
    else running.delete(id)
  }
}
