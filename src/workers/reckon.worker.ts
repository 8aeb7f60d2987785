import { expose } from 'comlink'
import { reckon } from '@/core/socket/reckon'
import type { Reckoning, ToReckon } from '@/core/socket/reckon'
import type { Socket } from '@/core/socket/socket'

let socket: Socket | null = null

const desk = {
  load(given: Socket): void {
    socket = given
  },
  reckon(asked: ToReckon): Reckoning | null {
    return socket && reckon(socket, asked)
  },
}

export type ReckonDesk = typeof desk

expose(desk)
