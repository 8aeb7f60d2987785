import type { Bodies, Kind } from '@/core/slices'
import { openDB } from 'idb'
import type { DBSchema } from 'idb'

/** A line that is entered but not saved yet; it lives in the browser's own database until it is. */
export interface Unsent {
  readonly id: string
  readonly tag: string
  readonly order: number
  readonly kind: Kind
  readonly body: Bodies[Kind]
  /** Id of the entry it strikes, since that may not have its number yet. */
  readonly strikesId: string | null
  readonly at: string
  readonly basis: number
  readonly trouble: { readonly kind: 'refused' | 'conflict'; readonly say: string } | null
}

/** A picture that is taken but not on the server yet. */
export interface UnsentPhoto {
  readonly id: string
  readonly tag: string
  readonly name: string
  readonly caption: string
  readonly file: Blob
}

interface Outbox extends DBSchema {
  unsent: { key: string; value: Unsent; indexes: { tag: string } }
  photo: { key: string; value: UnsentPhoto; indexes: { tag: string } }
}

const open = () =>
  openDB<Outbox>('arch-needle', 1, {
    upgrade(db) {
      db.createObjectStore('unsent', { keyPath: 'id' }).createIndex('tag', 'tag')
      db.createObjectStore('photo', { keyPath: 'id' }).createIndex('tag', 'tag')
    },
  })

/** Keeps nothing where the browser forbids it (private windows); the memory copy still works. */
async function quietly<T>(work: () => Promise<T>, otherwise: T): Promise<T> {
  try {
    return await work()
  } catch {
    return otherwise
  }
}

export const keepUnsent = (entry: Unsent) =>
  quietly(async () => void (await (await open()).put('unsent', entry)), undefined)
export const dropUnsent = (id: string) =>
  quietly(async () => void (await (await open()).delete('unsent', id)), undefined)
export const unsentOf = (tag: string) =>
  quietly(
    async () =>
      (await (await open()).getAllFromIndex('unsent', 'tag', tag)).sort((a, b) => a.order - b.order),
    [] as Unsent[],
  )

export const keepPhoto = (photo: UnsentPhoto) =>
  quietly(async () => void (await (await open()).put('photo', photo)), undefined)
export const dropPhoto = (id: string) =>
  quietly(async () => void (await (await open()).delete('photo', id)), undefined)
export const photosOf = (tag: string) =>
  quietly(async () => (await open()).getAllFromIndex('photo', 'tag', tag), [] as UnsentPhoto[])
