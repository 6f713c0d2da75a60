import pg from 'pg'

const FIRST_WAIT = 250 // milliseconds before the second try to reach the database
const LONGEST_WAIT = 10_000
const PATIENCE = 5000 // milliseconds that a reader waits for the database at most

/**
 * Listens to some channels on a connection of its own, from now until the process ends. While the database is away it tries again, ever
 * less often; once it is back, `missed` is called, because nobody knows what was announced meanwhile.
 *
 * @returns once it listens for the first time: from then on every announcement arrives; or after some seconds without a
 *   database, and then `missed` is called when there is one
 */
export function listen(
  url: string,
  channels: Readonly<Record<string, (payload: string) => void>>,
  missed: () => void,
): Promise<void> {
  let wait = FIRST_WAIT
  let isExpected = true // nobody waits for more than what comes from the first moment on
  let ready = () => {}
  const listening = new Promise<void>(resolve => {
    ready = resolve
  })
  setTimeout(() => {
    isExpected = false
    ready()
  }, PATIENCE).unref()
  const again = () => {
    setTimeout(connect, wait).unref()
    wait = Math.min(LONGEST_WAIT, wait * 2)
  }
  connect()
  return listening

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
    client.on('notification', ({ channel, payload }) => {
      if (payload) channels[channel]?.(payload)
    })
    client
      .connect()
      .then(() =>
        client.query(
          Object.keys(channels)
            .map(c => `listen ${c}`)
            .join('; '),
        ),
      )
      .then(() => {
        wait = FIRST_WAIT
        if (!isExpected) missed()
        isExpected = false
        ready()
      })
      .catch(end)
  }
}
