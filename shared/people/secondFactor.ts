import { z } from 'zod'

export const PasskeyRow = z.object({
  id: z.uuid(),
  title: z.string(),
  site: z.string(), // host it works at
  madeAt: z.iso.datetime(),
  lastUsedAt: z.iso.datetime().nullable(),
})
export type PasskeyRow = z.infer<typeof PasskeyRow>

export const SecondFactorView = z.object({
  isOn: z.boolean(), // the password alone does not sign in
  hasApp: z.boolean(), // an app makes codes
  passkeys: z.array(PasskeyRow),
  codesLeft: z.number().int(), // recovery codes nobody has used
  isDemanded: z.boolean(), // of staff of this installation
})
export type SecondFactorView = z.infer<typeof SecondFactorView>

/** What an app that makes codes is told. */
export const SecondFactorSecret = z.object({
  secret: z.string(), // base32
  address: z.string(), // otpauth://totp/…
  qr: z.string(), // the same address as a picture, SVG
})
export type SecondFactorSecret = z.infer<typeof SecondFactorSecret>

const Code = z
  .string()
  .trim()
  .transform(code => code.replace(/[\s-]/g, '').toUpperCase())
export const AppCodeWrite = z.object({ code: Code.pipe(z.string().min(6, 'Write the code.').max(20)) })
export const RecoveryCodes = z.object({ codes: z.array(z.string()) })
export const PasswordAgain = z.object({ password: z.string().min(1, 'Write your password.').max(200) })
