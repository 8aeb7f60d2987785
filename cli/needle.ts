// needle: the core on the command line. `list`, `schema <operation>`, or `<operation>` with JSON on standard input.
import { text } from 'node:stream/consumers'
import { answer } from './answer'

const args = process.argv.slice(2)
const reads = args.length > 0 && args[0] !== 'list' && args[0] !== 'schema'
const { code, json } = await answer(args, reads ? await text(process.stdin) : '')
const out = code === 0 ? process.stdout : process.stderr
out.write(`${JSON.stringify(json, null, 1)}\n`)
process.exitCode = code
