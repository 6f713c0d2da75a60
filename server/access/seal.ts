import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'
import { logError } from '#server/log'
import { Problem } from '#server/http/problem'

const SEALED = 'sealed:'
const NONCE = 12 // bytes, as AES-GCM wants it
const TAG = 16 // bytes

/** AES-256-GCM (NIST SP 800-38D) by `JOVREL_SECRET_KEY`; null without one. */
function key(): Buffer | null {
  const given = process.env.JOVREL_SECRET_KEY
  return given ? Buffer.from(hkdfSync('sha256', given, '', 'jovrel secrets', 32)) : null
}

/**
 * A secret as it is stored. Without a key of this installation it is stored as it is.
 *
 * @param owner the secret is of use in this person's row alone
 */
export function seal(secret: string, owner: string): string {
  const by = key()
  if (!by) return secret
  const nonce = randomBytes(NONCE)
  const cipher = createCipheriv('aes-256-gcm', by, nonce).setAAD(Buffer.from(owner))
  const text = Buffer.concat([cipher.update(secret), cipher.final()])
  return SEALED + Buffer.concat([nonce, text, cipher.getAuthTag()]).toString('base64url')
}

/** @throws {Problem} 503 if the key of this installation is another, or gone, or the secret was put into another's row */
export function unseal(stored: string, owner: string): string {
  if (!stored.startsWith(SEALED)) return stored
  try {
    const bytes = Buffer.from(stored.slice(SEALED.length), 'base64url')
    const decipher = createDecipheriv('aes-256-gcm', key()!, bytes.subarray(0, NONCE))
      .setAAD(Buffer.from(owner))
      .setAuthTag(bytes.subarray(-TAG))
    return decipher.update(bytes.subarray(NONCE, -TAG), undefined, 'utf8') + decipher.final('utf8')
  } catch (error) {
    logError('a sealed secret cannot be opened: is JOVREL_SECRET_KEY the one it was sealed with?', error)
    throw new Problem(
      503,
      'sealed',
      'Codes of apps cannot be checked now: whoever runs this Jovrel has to look at its key. A recovery code still signs you in.',
    )
  }
}
