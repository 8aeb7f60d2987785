import type { BoardModel, Landmark } from '@/data/boards'
import { demoSockets } from './sockets'

type Model = Omit<BoardModel, 'socketName' | 'rails' | 'build'> & {
  readonly build?: BoardModel['build']
  readonly landmarks: readonly Omit<Landmark, 'id' | 'photoSha256'>[]
}

const { lg1284, lg1716, pg906 } = demoSockets
/** Memory of the two kinds that the harbour's machines have. */
const [long, short] = ['long, 288 contacts', 'short, 260 contacts']
const built = (
  memoryKind: string,
  memorySlots: number,
  sizeMm: readonly [number, number],
  cardSlots: readonly number[],
  supplyPins: readonly number[],
) => ({ memoryKind, memorySlots, sizeMm, cardSlots, supplyPins })
const mark = (what: string, place: string, blockedBy = '') => ({ what, place, blockedBy })

/** The boards the harbour's computers are built on. */
export const demoBoards: readonly Model[] = [
  {
    id: 'tw-k61',
    maker: 'Tarnworks',
    name: 'TW-K61',
    revision: '',
    socketId: lg1284.id,
    notes: 'two memory channels, two slots each',
    build: built(long, 4, [244, 305], [16, 1, 1], [24, 8]),
    landmarks: [
      mark('debug LEDs', 'top right edge, four in a row: CPU, memory, graphics, boot'),
      mark('coin cell', 'between the two card slots', 'a long card'),
      mark('firmware chip', 'below the lower card slot, socketed', 'the card’s bracket'),
      mark('clear-settings pins', 'bottom edge, two pins left of the front header'),
    ],
  },
  {
    id: 'tw-k61-b',
    maker: 'Tarnworks',
    name: 'TW-K61',
    revision: 'B',
    socketId: lg1284.id,
    notes: 'firmware chip soldered since this revision',
    build: built(long, 4, [244, 305], [16, 1, 1], [24, 8]),
    landmarks: [
      mark('debug LEDs', 'top right edge, four in a row'),
      mark('coin cell', 'standing, beside the rear audio sockets'),
      mark('firmware chip', 'right of the coin cell, soldered; pin 1 to the rear'),
      mark('flash button', 'rear panel, lowest of three'),
    ],
  },
  {
    id: 'tw-k74',
    maker: 'Tarnworks',
    name: 'TW-K74',
    revision: '',
    socketId: lg1716.id,
    notes: 'trains memory for up to four minutes at the first start',
    build: built(long, 4, [244, 305], [16, 4, 4], [24, 8, 8]),
    landmarks: [
      mark('code display', 'bottom right corner, two figures'),
      mark('coin cell', 'under the first card slot', 'any card'),
      mark('second firmware chip', 'beside the first; switch SW2 chooses'),
    ],
  },
  {
    id: 'hv-skua-2',
    maker: 'Holm & Vey',
    name: 'Skua-2',
    revision: '',
    socketId: pg906.id,
    notes: 'pin-grid; the cooler pulls the CPU out when it is turned off cold',
    landmarks: [mark('speaker', 'between socket and memory'), mark('firmware chip', 'socketed, left edge')],
  },
  {
    id: 'hv-gannet',
    maker: 'Holm & Vey',
    name: 'Gannet',
    revision: 'A2',
    socketId: lg1284.id,
    notes: '',
    build: built(short, 2, [170, 170], [16], [24, 4]),
    landmarks: [
      mark('coin cell', 'bottom left; its holder oxidises'),
      mark('clear-settings pins', 'right of the cell'),
    ],
  },
  {
    id: 'br-sound-7',
    maker: 'Brackwater',
    name: 'Sound-7',
    revision: '',
    socketId: lg1716.id,
    notes: '',
    landmarks: [
      mark('debug LEDs', 'beside the main power plug'),
      mark('firmware chip', 'behind the network socket, 1.8 V'),
    ],
  },
  {
    id: 'br-sound-5',
    maker: 'Brackwater',
    name: 'Sound-5',
    revision: '',
    socketId: lg1284.id,
    notes: 'firmware chip socketed',
    build: built(long, 2, [244, 244], [16, 1], [24, 8]),
    landmarks: [],
  },
]
