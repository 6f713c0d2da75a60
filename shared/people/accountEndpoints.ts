import { Done } from '../http/done'
import { endpoint } from '../http/endpoint'
import {
  AccountView,
  AddressLinkView,
  EmailChange,
  NameWrite,
  PasswordChange,
  SecretParams,
  SessionList,
  SessionParams,
  SessionsEnded,
} from './account'

export const changeName = endpoint({
  method: 'PUT',
  path: '/api/account/name',
  summary: "Corrects one's own name",
  body: NameWrite,
  answer: AccountView,
})

export const changePassword = endpoint({
  method: 'PUT',
  path: '/api/account/password',
  logged: 'passwordChanged',
  summary: "Changes one's password, and ends every other session",
  body: PasswordChange,
  answer: Done,
})

export const changeEmail = endpoint({
  method: 'PUT',
  path: '/api/account/email',
  logged: 'addressChanged',
  summary: 'Asks for another address: it counts once its owner has followed a link sent to it',
  body: EmailChange,
  answer: AccountView,
})

export const askForConfirmation = endpoint({
  method: 'POST',
  path: '/api/account/confirmation',
  summary: 'Sends the link that confirms an address again',
  answer: Done,
})

export const readAddressLink = endpoint({
  method: 'GET',
  path: '/api/address/:secret',
  summary: 'Which address a link confirms',
  params: SecretParams,
  answer: AddressLinkView,
})

export const confirmAddress = endpoint({
  method: 'POST',
  path: '/api/address/:secret',
  logged: 'addressConfirmed',
  summary: 'Confirms an address by a link',
  params: SecretParams,
  answer: Done,
})

export const readSessions = endpoint({
  method: 'GET',
  path: '/api/account/sessions',
  summary: 'Where one is signed in',
  answer: SessionList,
})

export const endSession = endpoint({
  method: 'DELETE',
  path: '/api/account/sessions/:sessionId',
  logged: 'sessionsEnded',
  summary: "Ends one of one's sessions",
  params: SessionParams,
  answer: Done,
})

export const endOtherSessions = endpoint({
  method: 'DELETE',
  path: '/api/account/sessions',
  logged: 'sessionsEnded',
  summary: "Ends all of one's sessions but this one",
  answer: SessionsEnded,
})
