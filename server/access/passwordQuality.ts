import { refusedField } from '#server/http/problem'

const LEAST_SCORE = 2 // of 4: more than a million guesses
const LEAST_OWN = 6 // characters that are left without one's own name and address
const MEASURED = 64 // characters: what comes after them makes no password worse
const LEAST_NAME = 3 // characters of a name that is looked for

interface Owner {
  readonly email: string
  readonly givenName: string
  readonly familyName: string
}

/**
 * Refuses a password that guesses begin with: a common one, a row of keys, or little more than its owner's name. Length
 * is the contract's.
 */
export async function requireGoodPassword(password: string, owner: Owner): Promise<void> {
  const own = [owner.email, ...owner.email.split(/[@.]/), owner.givenName, owner.familyName]
    .map(part => part.toLowerCase())
    .filter(part => part.length >= LEAST_NAME)
  const rest = own.reduce((left, part) => left.replaceAll(part, ''), password.toLowerCase())
  if (rest.length < LEAST_OWN && rest.length < password.length)
    throw refusedField(
      'password',
      'ownData',
      'This password is mostly your own name or address. Choose other words.',
    )
  const { score } = (await strength()).check(password.slice(0, MEASURED), own)
  if (score < LEAST_SCORE)
    throw refusedField(
      'password',
      'common',
      'Many people choose this password, so it is guessed at once. Three or four words that do not belong together are better.',
    )
}

let measuring: ReturnType<typeof load> | null = null
/** The lists of common passwords are large: they are read when the first password is chosen. */
const strength = () => (measuring ??= load())

async function load() {
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ])
  return new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })
}
