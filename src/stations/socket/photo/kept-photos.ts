import { openDB } from 'idb'
import type { DBSchema } from 'idb'
import type { PhotoInHand } from './photo-in-hand'

/** A photo in hand with its clicks, in the browser's own database until it is on the map or put away. */
export interface KeptPhoto extends Pick<
  PhotoInHand,
  'id' | 'name' | 'file' | 'kept' | 'side' | 'mirrored' | 'part' | 'anchors'
> {
  readonly tag: string
  readonly order: number
}

interface Drawer extends DBSchema {
  photo: { key: string; value: KeptPhoto; indexes: { tag: string } }
}

const open = () =>
  openDB<Drawer>('arch-needle photos in hand', 1, {
    upgrade(db) {
      db.createObjectStore('photo', { keyPath: 'id' }).createIndex('tag', 'tag')
    },
  })

/** Does something with the drawer and shuts it; a browser that keeps nothing has none. */
async function withDrawer<T>(
  work: (db: Awaited<ReturnType<typeof open>>) => Promise<T>,
  otherwise: T,
): Promise<T> {
  try {
    const db = await open()
    try {
      return await work(db)
    } finally {
      db.close()
    }
  } catch {
    return otherwise
  }
}

export const keepInHand = (photo: KeptPhoto) =>
  withDrawer(async (db) => void (await db.put('photo', photo)), undefined)
export const dropInHand = (id: string) => withDrawer((db) => db.delete('photo', id), undefined)
export const inHandOf = (tag: string) =>
  withDrawer(
    async (db) => (await db.getAllFromIndex('photo', 'tag', tag)).sort((a, b) => a.order - b.order),
    [] as KeptPhoto[],
  )
