import { createHash, generateKeyPairSync, randomBytes, sign } from 'node:crypto'

const sha256 = (bytes: Buffer | string) => createHash('sha256').update(bytes).digest()
const encoded = (bytes: Buffer) => bytes.toString('base64url')

const PRESENT = 0x01
const VERIFIED = 0x04
const WITH_KEY = 0x40

/** What may be wrong in what a device says. */
interface Lie {
  readonly origin?: string
  readonly isVerified?: boolean
  readonly userHandle?: string
  readonly counter?: number
  readonly isBroken?: boolean // the signature is of something else
}

/**
 * A device that holds one passkey, made by hand after Web Authentication (W3C level 3, sections 6.1 and 6.5) and RFC 9052:
 * ECDSA over P-256 with SHA-256, attestation "none".
 */
export function softPasskey(origin: string) {
  const { privateKey, publicKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' })
  const id = randomBytes(32)
  const jwk = publicKey.export({ format: 'jwk' })
  let counter = 0

  const clientData = (type: string, challenge: string, lie: Lie) =>
    Buffer.from(JSON.stringify({ type, challenge, origin: lie.origin ?? origin, crossOrigin: false }))
  function authenticatorData(lie: Lie, key?: Buffer): Buffer {
    counter++
    const flags = PRESENT | (lie.isVerified === false ? 0 : VERIFIED) | (key ? WITH_KEY : 0)
    const head = Buffer.alloc(5)
    head.writeUInt8(flags, 0)
    head.writeUInt32BE(lie.counter ?? counter, 1)
    return Buffer.concat([sha256(new URL(origin).hostname), head, ...(key ? [key] : [])])
  }
  function attestedKey(): Buffer {
    const length = Buffer.alloc(2)
    length.writeUInt16BE(id.length)
    const cose = Buffer.concat([
      Buffer.from('a5010203262001215820', 'hex'), // {1: 2, 3: -7, -1: 1, -2: 32 bytes
      Buffer.from(jwk.x!, 'base64url'),
      Buffer.from('225820', 'hex'), // , -3: 32 bytes }
      Buffer.from(jwk.y!, 'base64url'),
    ])
    return Buffer.concat([Buffer.alloc(16), length, id, cose])
  }
  const credential = { id: encoded(id), rawId: encoded(id), type: 'public-key' }

  return {
    make(challenge: string, lie: Lie = {}) {
      const data = authenticatorData(lie, attestedKey())
      const length = Buffer.alloc(2)
      length.writeUInt16BE(data.length)
      const attestation = Buffer.concat([
        Buffer.from('a3', 'hex'),
        Buffer.from('63666d74646e6f6e65', 'hex'), // "fmt": "none"
        Buffer.from('6761747453746d74a0', 'hex'), // "attStmt": {}
        Buffer.from('68617574684461746159', 'hex'), // "authData": bytes
        length,
        data,
      ])
      return {
        ...credential,
        response: {
          clientDataJSON: encoded(clientData('webauthn.create', challenge, lie)),
          attestationObject: encoded(attestation),
          transports: ['internal', 'something new'],
        },
      }
    },
    show(challenge: string, lie: Lie = {}) {
      const client = clientData('webauthn.get', challenge, lie)
      const data = authenticatorData(lie)
      const signed = Buffer.concat([data, lie.isBroken ? randomBytes(32) : sha256(client)])
      return {
        ...credential,
        response: {
          clientDataJSON: encoded(client),
          authenticatorData: encoded(data),
          signature: encoded(sign('sha256', signed, privateKey)),
          ...(lie.userHandle && { userHandle: encoded(Buffer.from(lie.userHandle)) }),
        },
      }
    },
  }
}
