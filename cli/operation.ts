import type Joi from 'joi'
import { readFileSync } from 'node:fs'

/** A fault in what was handed in: which field, and the mend. */
export class BadInput extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message)
  }
}

export interface Operation {
  readonly say: string
  readonly schema: Joi.ObjectSchema
  readonly run: (input: never) => unknown
}

export const operation = <T>(
  say: string,
  schema: Joi.ObjectSchema,
  run: (input: T) => unknown,
): Operation => ({
  say,
  schema,
  run: run as Operation['run'],
})

/** @throws BadInput when there is no such file */
export function readFile(path: string, field: string): Buffer {
  try {
    return readFileSync(path)
  } catch {
    throw new BadInput(field, `${path} cannot be read; give a path from where you stand`)
  }
}
