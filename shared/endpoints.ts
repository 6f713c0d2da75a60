import * as http from './http/endpoints'
import * as people from './people/endpoints'
import * as account from './people/accountEndpoints'
import * as secondFactor from './people/secondFactorEndpoints'
import * as passkey from './people/passkeyEndpoints'
import * as accessLog from './people/accessLogEndpoints'
import * as files from './files/endpoints'
import * as planning from './planning/endpoints'
import * as contributing from './contributing/endpoints'
import * as lexicon from './kinds/lexicon/endpoints'
import * as reading from './kinds/reading/endpoints'
import * as review from './kinds/review/endpoints'
import * as wiki from './kinds/wiki/endpoints'
import * as marking from './marking/endpoints'
import * as gradebook from './marking/gradebookEndpoints'
import * as peers from './marking/peersEndpoints'
import * as closing from './closing/endpoints'
import * as voices from './voices/endpoints'
import * as messaging from './messaging/endpoints'
import * as keeping from './keeping/endpoints'
import type { Endpoint } from './http/endpoint'

/** The endpoint book: every endpoint by its name, under what it is about. For the server and for tests; a page takes what it needs. */
export const ENDPOINTS: Readonly<Record<string, Readonly<Record<string, Endpoint>>>> = {
  http,
  people,
  account,
  secondFactor,
  passkey,
  accessLog,
  files,
  planning,
  contributing,
  lexicon,
  reading,
  review,
  wiki,
  marking,
  gradebook,
  peers,
  closing,
  voices,
  messaging,
  keeping,
}
