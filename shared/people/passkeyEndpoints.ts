import { z } from 'zod'
import { endpoint } from '../http/endpoint'
import { AddPasskey, AddedPasskey, PasskeyOptions, PasskeyProof } from './passkeys'
import { PasswordAgain, SecondFactorView } from './secondFactor'
import { SessionAnswer } from './session'

export const beginPasskey = endpoint({
  method: 'POST',
  path: '/api/account/passkeys/begin',
  summary: 'What a device is asked so that it makes a passkey',
  body: PasswordAgain,
  answer: PasskeyOptions,
})

export const addPasskey = endpoint({
  method: 'POST',
  path: '/api/account/passkeys',
  logged: 'passkeyAdded',
  summary: 'Adds the passkey a device has made; with the first second step come recovery codes',
  body: AddPasskey,
  answer: AddedPasskey,
})

export const removePasskey = endpoint({
  method: 'POST',
  path: '/api/account/passkeys/:passkeyId/remove',
  logged: 'passkeyRemoved',
  summary: 'Removes a passkey: it signs nobody in any more',
  params: z.object({ passkeyId: z.uuid() }),
  body: PasswordAgain,
  answer: SecondFactorView,
})

export const beginSignInByPasskey = endpoint({
  method: 'POST',
  path: '/api/session/passkey/begin',
  summary: 'What a device is asked so that its passkey signs in',
  answer: PasskeyOptions,
})

export const signInByPasskey = endpoint({
  method: 'POST',
  path: '/api/session/passkey',
  logged: 'signInByPasskey',
  summary: 'Signs in by what a passkey has signed',
  body: PasskeyProof,
  answer: SessionAnswer,
})
