import { pace } from './pace'

/** Asks again and again until there is an answer; what works by itself in a moment (mail, a queue) has no other signal. */
export async function until<T>(
  what: string,
  ask: () => Promise<T | null | false | undefined>,
  seconds = 60,
): Promise<T> {
  for (const end = Date.now() + seconds * 1000 * pace(); Date.now() < end;) {
    const answer = await ask()
    if (answer) return answer
    await new Promise(resolve => setTimeout(resolve, 150))
  }
  throw new Error(`${what} did not happen within ${seconds} seconds`)
}
