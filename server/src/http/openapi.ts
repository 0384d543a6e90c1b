import { z } from 'zod'
import type { Route } from './route'

const problem = {
  description: 'A problem document (RFC 9457); `errors` names each field by JSON Pointer, with the mend.',
  content: {
    'application/problem+json': {
      schema: {
        type: 'object',
        properties: {
          type: { type: 'string' },
          title: { type: 'string' },
          status: { type: 'integer' },
          errors: { type: 'array' }
        }
      }
    }
  }
}

/** Describes the routes as an OpenAPI 3.1 document, from the very schemas that check each call. */
export function openApi(routes: readonly Route[]): unknown {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const one of routes) {
    const path = `/api${one.path.replace(/:(\w+)/g, '{$1}')}`
    const parameters = [...parametersOf(one.params, 'path'), ...parametersOf(one.query, 'query')]
    paths[path] = {
      ...paths[path],
      [one.method]: {
        operationId: one.name,
        summary: one.does,
        ...(one.roles === 'anyone' ? { security: [] } : { description: `Roles: ${one.roles.join(', ')}.` }),
        ...(parameters.length ? { parameters } : {}),
        ...(one.body
          ? {
              requestBody: {
                required: true,
                content: {
                  [one.upload ? 'multipart/form-data' : 'application/json']: {
                    schema: schemaOf(one.body, 'input')
                  }
                }
              }
            }
          : {}),
        responses: { [String(statusOf(one))]: answerOf(one), default: problem }
      }
    }
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Pasado', version: '1' },
    components: { securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'pasado_session' } } },
    security: [{ session: [] }],
    paths
  }
}

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(schema, { io, unrepresentable: 'any' })
const statusOf = ({ answer, status }: Route): number => (answer === 'nothing' ? 204 : (status ?? 200))

/** What a call answers where all is well. */
function answerOf({ answer }: Route): unknown {
  if (answer === 'nothing') return { description: 'Done; there is nothing to tell.' }
  if (typeof answer === 'string') return { description: 'A file.', content: { [answer.split(';')[0]!]: {} } }
  return { description: 'Done.', content: { 'application/json': { schema: schemaOf(answer, 'output') } } }
}

function parametersOf(schema: z.ZodType | undefined, place: 'path' | 'query'): unknown[] {
  if (!(schema instanceof z.ZodObject)) return []
  return Object.entries(schema.shape as Record<string, z.ZodType>).map(([name, one]) => ({
    name,
    in: place,
    required: place === 'path' || !one.safeParse(undefined).success,
    schema: schemaOf(one, 'input')
  }))
}
