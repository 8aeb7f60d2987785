import { expose } from 'comlink'
import { giveBack, reckon, weigh } from '@/core/socket/reckon'
import type { PushAdvice } from '@/core/socket/push'
import type { Reckoning, ToGiveBack, ToReckon, ToWeigh } from '@/core/socket/reckon'
import type { GivenBack } from '@/core/socket/replacement'
import type { Socket } from '@/core/socket/socket'

let socket: Socket | null = null

const desk = {
  load(given: Socket): void {
    socket = given
  },
  reckon(asked: ToReckon): Reckoning | null {
    return socket && reckon(socket, asked)
  },
  weigh(asked: ToWeigh): PushAdvice | null {
    return socket && weigh(socket, asked)
  },
  giveBack(asked: ToGiveBack): GivenBack[] | null {
    return socket && giveBack(socket, asked)
  },
}

export type ReckonDesk = typeof desk

expose(desk)
