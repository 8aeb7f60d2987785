import { expose } from 'comlink'
import { giveBack, reckon, weigh } from '@/core/socket/straighten/reckon'
import type { PushAdvice } from '@/core/socket/straighten/push'
import type { Reckoning, ToGiveBack, ToReckon, ToWeigh } from '@/core/socket/straighten/reckon'
import type { GivenBack } from '@/core/socket/replace/replacement'
import type { Socket } from '@/core/socket/model/socket'

let socket: Socket | null = null

const worker = {
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

export type ReckonWorker = typeof worker

expose(worker)
