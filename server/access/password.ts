import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'

// OWASP's recommendation for scrypt: N = 2^16 with r = 8 and p = 2 (some 64 MB and 200 ms for one sign-in).
const COST = { N: 2 ** 16, r: 8, p: 2, maxmem: 128 * 2 ** 20 }
/** For a password that is no secret, as the demo's: there is nothing to protect, and signing in is quick. */
export const OPEN_COST = { ...COST, N: 2 ** 8, p: 1 }
const KEY_BYTES = 32

const derive = (password: string, salt: Buffer, cost = COST): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(password.normalize('NFKC'), salt, KEY_BYTES, cost, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  )

/** Hash to store: `scrypt$N$r$p$salt$key`, so that the cost can be raised later. */
export async function hashPassword(password: string, cost = COST): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password, salt, cost)
  return ['scrypt', cost.N, cost.r, cost.p, salt.toString('base64url'), key.toString('base64url')].join('$')
}

/** Whether a password is the stored one. Takes as long when nothing is stored: an address is not betrayed by time. */
export async function passwordMatches(password: string, stored: string | null): Promise<boolean> {
  const [, N, r, p, salt, key] = (
    stored ?? `scrypt$${COST.N}$${COST.r}$${COST.p}$AAAAAAAAAAAAAAAAAAAAAA$`
  ).split('$')
  const derived = await derive(password, Buffer.from(salt!, 'base64url'), {
    N: Number(N),
    r: Number(r),
    p: Number(p),
    maxmem: COST.maxmem,
  })
  const expected = Buffer.from(key!, 'base64url')
  return expected.length === derived.length && timingSafeEqual(expected, derived)
}
