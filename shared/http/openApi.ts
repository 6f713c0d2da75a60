import { z } from 'zod'

/** The OpenAPI document of the endpoint book, as `npm run openapi` writes it. */
export const OpenApiDocument = z.looseObject({ openapi: z.literal('3.1.0') })
