import { randomInt } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { digestOf } from '#server/access/session'
import type { Db } from '#server/database/client'
import { persons, setupCodes } from '#server/database/schema'
import { refusedField } from '#server/http/problem'

// no letters or figures that are mistaken for one another
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'
const LENGTH = 12

const newCode = (): string =>
  Array.from(
    { length: LENGTH },
    (_, i) => (i && i % 4 === 0 ? '-' : '') + LETTERS[randomInt(LETTERS.length)]!,
  ).join('')

/**
 * A code for the first account of an installation that has none, for its console: whoever reads the console may make it,
 * and nobody else who finds the address first. `JOVREL_SETUP_CODE` sets one. Null where there is an account already.
 */
export async function makeSetupCode(db: Db): Promise<string | null> {
  const [someone] = await db.select({ id: persons.id }).from(persons).limit(1)
  if (someone) return null
  const code = process.env.JOVREL_SETUP_CODE ?? newCode()
  await db
    .insert(setupCodes)
    .values({ digest: digestOf(spelled(code)) })
    .onConflictDoNothing()
  return code
}

/** Takes a code, once: afterwards none of those that were printed is good any more. */
export async function useSetupCode(tx: Db, code: string): Promise<void> {
  const [known] = await tx
    .select({ digest: setupCodes.digest })
    .from(setupCodes)
    .where(eq(setupCodes.digest, digestOf(spelled(code))))
  if (!known)
    throw refusedField(
      'code',
      'wrongCode',
      'This is not the code. It stands on the console of the server, since Jovrel was started there.',
    )
  await tx.delete(setupCodes)
}

const spelled = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '')
