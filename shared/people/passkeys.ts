import { z } from 'zod'

const Encoded = z
  .string()
  .min(1)
  .max(20_000)
  .regex(/^[\w-]+={0,2}$/, 'This is not what a passkey sends.') // base64url
const CredentialId = Encoded.max(1400) // 1023 bytes at most

/** What a browser is handed to ask the device, as Web Authentication names it (level 3, section 5). */
export const PasskeyOptions = z.object({ options: z.looseObject({ challenge: z.string() }) })

const Credential = z.object({
  id: CredentialId,
  rawId: CredentialId,
  type: z.literal('public-key'),
  authenticatorAttachment: z.enum(['platform', 'cross-platform']).optional(),
})

/** The key a device has made, and the name its owner gives it. */
export const AddPasskey = z.object({
  title: z.string().trim().min(1, 'Write a name by which you know it.').max(60),
  credential: Credential.extend({
    response: z.object({
      clientDataJSON: Encoded,
      attestationObject: Encoded,
      transports: z.array(z.string().max(20)).max(10).optional(),
    }),
  }),
})
export type AddPasskey = z.infer<typeof AddPasskey>
/** Recovery codes, if it is the first second step of this person; else none. */
export const AddedPasskey = z.object({ codes: z.array(z.string()) })

/** What a passkey has signed. */
export const PasskeyProof = z.object({
  credential: Credential.extend({
    response: z.object({
      clientDataJSON: Encoded,
      authenticatorData: Encoded,
      signature: Encoded,
      userHandle: Encoded.optional(),
    }),
  }),
})
export type PasskeyProof = z.infer<typeof PasskeyProof>
