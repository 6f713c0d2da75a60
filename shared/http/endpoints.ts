import { endpoint } from './endpoint'
import { OpenApiDocument } from './openApi'

export const readOpenApi = endpoint({
  method: 'GET',
  path: '/api/openapi.json',
  summary: 'This document',
  answer: OpenApiDocument,
})
