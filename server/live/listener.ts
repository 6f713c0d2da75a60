import pg from 'pg'
import { CHANNEL, type Announcement } from '#server/services/contributing/announce'

const FIRST_WAIT = 250 // milliseconds before the second try to reach the database
const LONGEST_WAIT = 10_000

/**
 * Listens on a connection of its own, from now until the process ends. While the database is away it tries again, ever
 * less often; once it is back, `missed` is told, because nobody knows what was announced meanwhile.
 */
export function listen(url: string, heard: (announcement: Announcement) => void, missed: () => void): void {
  let wait = FIRST_WAIT
  let first = true
  const again = () => {
    setTimeout(connect, wait).unref()
    wait = Math.min(LONGEST_WAIT, wait * 2)
  }
  connect()

  function connect() {
    const client = new pg.Client({ connectionString: url, keepAlive: true })
    let over = false
    const end = () => {
      if (over) return
      over = true
      client.removeAllListeners('notification')
      void client.end().catch(() => {})
      again()
    }
    client.on('error', end)
    client.on('end', end)
    client.on('notification', ({ payload }) => {
      if (payload) heard(JSON.parse(payload) as Announcement)
    })
    client
      .connect()
      .then(() => client.query(`listen ${CHANNEL}`))
      .then(() => {
        wait = FIRST_WAIT
        if (!first) missed()
        first = false
      })
      .catch(end)
  }
}
