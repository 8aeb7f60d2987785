import type Joi from 'joi'
import parse from 'joi-to-json'
import { entryBodies } from '@/entry-schemas/entry-schema'
import { zipSchemas } from './job-zip'

type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json }

const bounds: ReadonlySet<string> = new Set([
  ...['minimum', 'maximum', 'exclusiveMinimum', 'exclusiveMaximum'],
  ...['minLength', 'maxLength', 'minItems', 'maxItems'],
])

/**
 * Alternatives that may both hold are said as `anyOf`; what takes every type needs none; a bound that is another field’s value
 * has no word in the schema, and is checked on reading alone.
 */
const plain = (schema: Json): Json => {
  if (Array.isArray(schema)) return schema.map(plain)
  if (schema === null || typeof schema !== 'object') return schema
  return Object.fromEntries(
    Object.entries(schema)
      .filter(([key, value]) => !(key === 'type' && Array.isArray(value) && value.length > 5))
      .filter(([key, value]) => !(bounds.has(key) && typeof value === 'object'))
      // What a pattern names stands under `patternProperties`.
      .filter(([key]) => !key.startsWith('/'))
      .map(([key, value]) => [key === 'oneOf' ? 'anyOf' : key, plain(value)]),
  )
}
const asJson = (schema: Joi.Schema): Json => plain(parse(schema as never, 'json-draft-2019-09') as Json)

const line = (kind: string, body: Joi.Schema): Json => ({
  type: 'object',
  properties: {
    id: { type: 'string', format: 'uuid' },
    seq: { type: 'integer', minimum: 1 },
    at: { type: 'string', format: 'date-time' },
    by: { type: 'string' },
    kind: { const: kind },
    v: { type: 'integer', minimum: 1 },
    body: asJson(body),
    strikes: { type: ['integer', 'null'], minimum: 1 },
  },
  required: ['id', 'seq', 'at', 'by', 'kind', 'v', 'body', 'strikes'],
})

/** The JSON Schema of a job’s ZIP as it is written today: what each of its files holds, by its path. */
export const jobZipSchema = (): Json => ({
  $schema: 'https://json-schema.org/draft/2019-09/schema',
  title: 'A job as one ZIP, file by file',
  type: 'object',
  properties: {
    ...Object.fromEntries(Object.entries(zipSchemas).map(([path, schema]) => [path, asJson(schema)])),
    'tape.json': {
      type: 'array',
      items: { oneOf: Object.entries(entryBodies).map(([kind, body]) => line(kind, body as Joi.Schema)) },
    },
  },
  required: ['job.json', 'tape.json', 'manifest.json'],
})
