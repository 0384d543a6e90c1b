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
  for (const route of routes) {
    const path = `/api${route.path.replace(/:(\w+)/g, '{$1}')}`
    const parameters = [...parametersOf(route.params, 'path'), ...parametersOf(route.query, 'query')]
    paths[path] = {
      ...paths[path],
      [route.method]: {
        operationId: route.name,
        summary: route.does,
        ...(route.roles === 'anyone' ? { security: [] } : { description: `Roles: ${route.roles.join(', ')}.` }),
        ...(parameters.length ? { parameters } : {}),
        ...(route.body
          ? {
              requestBody: {
                required: true,
                content: {
                  [route.upload ? 'multipart/form-data' : 'application/json']: {
                    schema: schemaOf(route.body, 'input')
                  }
                }
              }
            }
          : {}),
        responses: { [String(statusOf(route))]: answerOf(route), default: problem }
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
  return Object.entries(schema.shape as Record<string, z.ZodType>).map(([name, zodType]) => ({
    name,
    in: place,
    required: place === 'path' || !zodType.safeParse(undefined).success,
    schema: schemaOf(zodType, 'input')
  }))
}
