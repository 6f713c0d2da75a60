import { pathToFileURL } from 'node:url'
import { seededRandom } from '#core/chance/seededRandom'
import type { VoicesIn } from '#core/voices/analyseVoices'
import { measureVoices } from '#core/voices/measureVoices'
import { localClock } from '#core/voices/rhythm'
import type { TalkEntry } from '#core/voices/talkEntry'
import type { VoicesTasks } from '#server/services/voices/voicesThread'
import { ThreadPool } from '#server/threads/threadPool'

const thread = new URL('./threads/voicesThread.mjs', pathToFileURL(process.env.JOVREL_TEST_BUILD!))
const pool = new ThreadPool<VoicesTasks>(() => thread, { threads: 1, waiting: 1, megabytes: 3000 })

/** Talk of so many, in seminars of forty that talk among themselves. */
export function voicesOf(contributions: number, people: number) {
  const random = seededRandom(people)
  const ids = Array.from({ length: people }, (_, i) => `p${i}`)
  const talkEntries: TalkEntry[] = []
  const byCircle = new Map<number, TalkEntry[]>()
  for (let i = 0; i < contributions; i++) {
    const author = Math.floor(random() * people)
    const circle = byCircle.get(Math.floor(author / 40)) ?? []
    const parent =
      circle.length > 0 && random() < 0.65
        ? circle[Math.max(0, circle.length - 1 - Math.floor(random() * 60))]!
        : null
    const words = Math.floor(random() * 240)
    const said: TalkEntry = {
      id: `c${i}`,
      authorId: ids[author]!,
      activityId: `a${i % 12}`,
      parentId: parent?.id ?? null,
      answersId: parent?.authorId ?? null,
      answersAt: parent?.at ?? null,
      depth: parent ? parent.depth + 1 : 0,
      at: 1.79e12 + i * 60_000,
      words,
      sentences: Math.ceil(words / 16),
      syllables: Math.ceil(words * 1.45),
    }
    circle.push(said)
    byCircle.set(Math.floor(author / 40), circle)
    talkEntries.push(said)
  }
  const look: VoicesIn = {
    talkEntries,
    before: [],
    people: ids,
    staff: [],
    timeZone: 'Europe/Amsterdam',
    days: [],
    due: [],
    answeredElsewhere: [],
    most: 5,
  }
  return {
    measure() {
      const clock = localClock('Europe/Amsterdam')
      measureVoices(talkEntries, {
        people: ids,
        staff: new Set(),
        dayOf: at => clock(at).day,
        dueOf: () => null,
      })
    },
    async analyseInThread() {
      await pool.run('analyse', [look], 600_000)
    },
  }
}
