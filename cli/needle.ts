// needle: the core on the command line. `list`, `schema <operation>`, or `<operation>` with JSON on standard input.
import Joi from 'joi'
import { text } from 'node:stream/consumers'
import { BadInput, operations } from './operations'

const print = (value: unknown): void => void process.stdout.write(`${JSON.stringify(value, null, 1)}\n`)

/** Bad input: exit 2 and a JSON error that names the field and the mend. */
function refuse(field: string, message: string): void {
  process.stderr.write(`${JSON.stringify({ error: { field, text: message } }, null, 1)}\n`)
  process.exitCode = 2
}

async function main(word: string | undefined, of: string | undefined): Promise<void> {
  if (!word || word === 'list')
    return print(Object.entries(operations).map(([name, { say }]) => ({ operation: name, say })))
  const asked = word === 'schema' ? of : word
  const operation = operations[asked ?? '']
  if (!operation)
    return refuse('operation', `there is no operation ${asked ?? ''}; \`needle list\` names them all`)
  if (word === 'schema') return print(operation.schema.describe())
  let input: unknown
  try {
    input = JSON.parse((await text(process.stdin)) || '{}')
  } catch (error) {
    return refuse('stdin', `standard input is not JSON: ${error instanceof Error ? error.message : ''}`)
  }
  try {
    print(operation.run((await operation.schema.validateAsync(input)) as never))
  } catch (error) {
    if (error instanceof BadInput) return refuse(error.field, error.message)
    if (error instanceof Joi.ValidationError) {
      const fault = error.details[0]!
      return refuse(fault.path.join('.') || 'input', fault.message.replaceAll('"', ''))
    }
    throw error
  }
}

await main(process.argv[2], process.argv[3])
