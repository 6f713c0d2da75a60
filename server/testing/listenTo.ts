import type { LiveEvent } from '#shared/contributing/thread'
import type { Client } from './server'

/** What a page would hear on a talk's stream. */
export async function listenTo(client: Client, activityId: string) {
  const answer = await client.send('GET', `/api/activities/${activityId}/live`)
  const heard: LiveEvent[] = []
  let said = ''
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
  const reading = (async () => {
    for (
      let part = await reader.read().catch(() => ({ done: true, value: '' }));
      !part.done;
      part = await reader.read().catch(() => ({ done: true, value: '' }))
    ) {
      said += part.value
      const blocks = said.split('\n\n')
      said = blocks.pop()!
      for (const block of blocks) {
        const data = /^data: (.*)$/m.exec(block)?.[1]
        if (data && !/^event: beat/m.test(block)) heard.push(JSON.parse(data) as LiveEvent)
      }
    }
  })()
  return {
    heard,
    /** When the stream has come to its end, whoever ended it. */
    ended: reading,
    raw: () => JSON.stringify(heard) + said,
    close: async () => {
      await reader.cancel().catch(() => {})
      await reading
    },
  }
}
