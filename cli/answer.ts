import Joi from 'joi'
import { BadInput } from './operation'
import { operations } from './operations'

export interface Answer {
  /** 0, or 2 for bad input. */
  readonly code: 0 | 2
  readonly json: unknown
}

/** Bad input: a JSON error that names the field and the mend. */
const refused = (field: string, text: string): Answer => ({ code: 2, json: { error: { field, text } } })

/** A schema’s words without its marks: another field is named, not `ref:` it. */
const plainly = (message: string) => message.replaceAll('"', '').replaceAll('ref:', '')

/** What `needle` says to its arguments, with what stands on standard input. */
export async function answer(args: readonly string[], input: string): Promise<Answer> {
  const [word = 'list', of] = args
  if (word === 'list')
    return { code: 0, json: Object.entries(operations).map(([name, { say }]) => ({ operation: name, say })) }
  const asked = word === 'schema' ? of : word
  const operation = operations[asked ?? '']
  if (!operation)
    return refused('operation', `there is no operation ${asked ?? ''}; \`needle list\` names them all`)
  if (word === 'schema') return { code: 0, json: operation.schema.describe() }
  let request: unknown
  try {
    request = JSON.parse(input || '{}')
  } catch (error) {
    return refused('stdin', `standard input is not JSON: ${error instanceof Error ? error.message : ''}`)
  }
  try {
    return { code: 0, json: await operation.run((await operation.schema.validateAsync(request)) as never) }
  } catch (error) {
    if (error instanceof BadInput) return refused(error.field, error.message)
    if (!(error instanceof Joi.ValidationError)) throw error
    const fault = error.details[0]!
    return refused(fault.path.join('.') || 'input', plainly(fault.message))
  }
}
