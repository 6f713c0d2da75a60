import { endpoint } from '../http/endpoint'
import {
  AppCodeWrite,
  PasswordAgain,
  RecoveryCodes,
  SecondFactorSecret,
  SecondFactorView,
} from './secondFactor'
import { SessionAnswer } from './session'

export const readSecondFactor = endpoint({
  method: 'GET',
  path: '/api/account/second-factor',
  summary: 'Whether a code is asked for when one signs in',
  answer: SecondFactorView,
})

export const beginSecondFactor = endpoint({
  method: 'POST',
  path: '/api/account/second-factor',
  summary: 'Makes a secret for an app that makes codes; it counts once a code of it was shown',
  body: PasswordAgain,
  answer: SecondFactorSecret,
})

export const confirmSecondFactor = endpoint({
  method: 'PUT',
  path: '/api/account/second-factor',
  logged: 'secondStepOn',
  summary: 'Turns the second step on by a code of the app, and gives recovery codes',
  body: AppCodeWrite,
  answer: RecoveryCodes,
})

export const renewRecoveryCodes = endpoint({
  method: 'POST',
  path: '/api/account/second-factor/codes',
  logged: 'recoveryCodesMade',
  summary: 'Makes new recovery codes in place of the old ones',
  body: PasswordAgain,
  answer: RecoveryCodes,
})

export const endSecondFactor = endpoint({
  method: 'POST',
  path: '/api/account/second-factor/end',
  logged: 'secondStepOff',
  summary: 'Turns the second step off',
  body: PasswordAgain,
  answer: SecondFactorView,
})

export const signInByCode = endpoint({
  method: 'POST',
  path: '/api/session/code',
  logged: 'signInByCode',
  summary: 'Signs in by the code of an app, or a recovery code, after the password was right',
  body: AppCodeWrite,
  answer: SessionAnswer,
})
