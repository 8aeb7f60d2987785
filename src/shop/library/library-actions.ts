'use server'
import { randomUUID } from 'node:crypto'
import { revalidatePath } from 'next/cache'
import Joi from 'joi'
import { buildWords, readBuild } from '@/core/shop/build'
import type { BuildWords } from '@/core/shop/build'
import { addBoard, addLandmark, keepBuild, removeLandmark } from '@/data/boards'
import { signedIn } from '@/server/signed-in'

/** What a library form shows after a refusal; what was typed comes back. */
export interface LibraryFormState {
  readonly faults: Readonly<Record<string, string>>
  readonly typed: Readonly<Record<string, string>>
  readonly done?: string
}

const words = (max: number) => Joi.string().trim().max(max).allow('').required()
const board = Joi.object({
  maker: Joi.string()
    .trim()
    .min(1)
    .max(60)
    .required()
    .messages({ '*': 'Who made it? As printed on the board.' }),
  name: Joi.string()
    .trim()
    .min(1)
    .max(60)
    .required()
    .messages({ '*': 'Which model? As printed on the board.' }),
  revision: words(40),
  socketId: words(60),
  notes: words(2000),
}).unknown()

const landmark = Joi.object({
  boardId: Joi.string().required(),
  what: Joi.string()
    .trim()
    .min(1)
    .max(60)
    .required()
    .messages({ '*': 'What is it? Flash button, debug LEDs, coin cell…' }),
  place: Joi.string()
    .trim()
    .min(1)
    .max(200)
    .required()
    .messages({ '*': 'Where is it? From an edge, a slot or the socket.' }),
  blockedBy: words(200),
  photo: Joi.string().hex().length(64).allow('').required(),
}).unknown()

function read(form: FormData, schema: Joi.ObjectSchema) {
  const typed = Object.fromEntries(
    [...form.entries()].filter(([key, v]) => typeof v === 'string' && !key.startsWith('$')),
  ) as Record<string, string>
  const { error, value } = schema.validate(typed, { abortEarly: false })
  const faults = Object.fromEntries(error?.details.map((d) => [String(d.path[0]), d.message]) ?? [])
  return { typed, faults, value: value as Record<string, string>, ok: !error }
}

export async function addBoardAction(_: LibraryFormState, form: FormData): Promise<LibraryFormState> {
  await signedIn('/library')
  const { typed, faults, value, ok } = read(form, board)
  if (!ok) return { typed, faults }
  const { maker, name, revision, socketId, notes } = value as {
    maker: string
    name: string
    revision: string
    socketId: string
    notes: string
  }
  try {
    await addBoard({ id: randomUUID(), maker, name, revision, socketId: socketId || null, notes })
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === '23505')
      return { typed, faults: { name: 'This board is in the library already, with this revision.' } }
    throw error
  }
  revalidatePath('/library')
  return { typed: {}, faults: {}, done: `${maker} ${name} is in the library.` }
}

export async function addLandmarkAction(_: LibraryFormState, form: FormData): Promise<LibraryFormState> {
  await signedIn('/library')
  const { typed, faults, value, ok } = read(form, landmark)
  if (!ok) return { typed, faults }
  const { boardId, what, place, blockedBy, photo } = value as {
    boardId: string
    what: string
    place: string
    blockedBy: string
    photo: string
  }
  await addLandmark(boardId, what, place, blockedBy, photo || null)
  revalidatePath(`/library/boards/${boardId}`)
  return { typed: {}, faults: {}, done: `${what} is noted.` }
}

const build = Joi.object({
  boardId: Joi.string().required(),
  memoryKind: words(200),
  memorySlots: words(200),
  sizeMm: words(200),
  cardSlots: words(200),
  supplyPins: words(200),
}).unknown()

export async function keepBuildAction(_: LibraryFormState, form: FormData): Promise<LibraryFormState> {
  await signedIn('/library')
  const { typed, faults, value, ok } = read(form, build)
  if (!ok) return { typed, faults }
  const { boardId, memoryKind, memorySlots, sizeMm, cardSlots, supplyPins } = value as {
    boardId: string
  } & BuildWords
  const given = readBuild({ memoryKind, memorySlots, sizeMm, cardSlots, supplyPins })
  if (Object.keys(given.faults).length > 0) return { typed, faults: given.faults }
  await keepBuild(boardId, given.build)
  revalidatePath(`/library/boards/${boardId}`)
  return { typed: { ...buildWords(given.build) }, faults: {}, done: 'Kept.' }
}

export async function removeLandmarkAction(form: FormData): Promise<void> {
  await signedIn('/library')
  const boardId = String(form.get('boardId'))
  await removeLandmark(boardId, String(form.get('id')))
  revalidatePath(`/library/boards/${boardId}`)
}
