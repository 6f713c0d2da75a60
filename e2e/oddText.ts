import { detailOf } from '#core/kinds/contributionDetail'
import { eq } from 'drizzle-orm'
import * as t from '#server/database/schema'
import type { World } from '#server/testing/world'
import { expect } from './fixtures'

const ODD =
  '<h1>One</h1><p>The e\u00adﬀect of a\u00a0ﬁsh 🐟 and שלום עולם here.</p><p>Next para\u00adgraph, caf\u0065\u0301.</p><h1>Two</h1><p>The last words of all.</p>'
/** Words chosen in it, from where to where, what is said of them, and the words that must be kept. */
export const ODD_PASSAGES = [
  { from: 'e\u00adﬀect', to: '🐟', said: 'On the effect.', exact: 'effect of a fish 🐟' },
  { from: 'שלום', to: 'graph', said: 'From right to left.', exact: 'שלום עולם here. Next paragraph' },
  { from: 'caf', to: 'last', said: 'Over the edge.', exact: 'café. Two The last' },
] as const

/** Makes the article of the seminar one of soft hyphens, ligatures, right-to-left words and emoji. */
export async function setOddText(world: World): Promise<void> {
  const [text] = await world.db.select().from(t.texts).where(eq(t.texts.form, 'article'))
  const answer = await (
    await world.as('ines')
  ).json('POST', `/api/seminars/${world.seminar.id}/texts/${text!.id}/versions`, {
    key: crypto.randomUUID(),
    name: 'odd.html',
    base64: Buffer.from(ODD).toString('base64'),
  })
  expect(answer.status).toBe(200)
}
/** The words kept with the note that says this. */
export async function passageOf(world: World, said: string): Promise<string> {
  const [row] = await world.db.select().from(t.contributions).where(eq(t.contributions.text, said))
  return detailOf(row!, 'note').note!.passage!.exact
}
