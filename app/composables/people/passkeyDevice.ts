import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser'
import type { AddPasskey, PasskeyProof } from '#shared/people/passkeys'

/** The device said no, or nobody answered it. Its sentence is for the person. */
export class PasskeyRefused extends Error {}

/** Whether a host is a number (IPv4, IPv6) instead of a name. */
export const isNumber = (host: string): boolean => /^[\d.]+$|^\[/.test(host)
/** Whether this browser can keep and show passkeys here: it does so for addresses with a name only. */
export const canUsePasskeys = (): boolean =>
  window.PublicKeyCredential !== undefined && window.isSecureContext && !isNumber(location.hostname)

/** Asks the device to make a key. @throws {PasskeyRefused} */
export async function makePasskey(options: object): Promise<AddPasskey['credential']> {
  const { startRegistration } = await import('@simplewebauthn/browser')
  return startRegistration({ optionsJSON: options as PublicKeyCredentialCreationOptionsJSON }) // as the server's package makes them
    .catch(refuse)
}

/** Asks the device to show a key it has for this address. @throws {PasskeyRefused} */
export async function showPasskey(options: object): Promise<PasskeyProof['credential']> {
  const { startAuthentication } = await import('@simplewebauthn/browser')
  return startAuthentication({ optionsJSON: options as PublicKeyCredentialRequestOptionsJSON }) // as the server's package makes them
    .catch(refuse)
}

function refuse(error: unknown): never {
  const name = error instanceof Error ? error.name : ''
  if (name === 'InvalidStateError')
    throw new PasskeyRefused('This device holds a passkey for your account already.')
  if (name === 'NotAllowedError' || name === 'AbortError')
    throw new PasskeyRefused('No passkey was shown. Try again, or use another way.')
  throw new PasskeyRefused('This browser could not use a passkey. Try again, or use another way.')
}
