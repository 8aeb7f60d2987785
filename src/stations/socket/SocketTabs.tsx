'use client'
import type { ReactNode } from 'react'
import type { PushAdvice } from '@/core/socket/straighten/push'
import type { Reckoning, ToGiveBack } from '@/core/socket/straighten/reckon'
import type { GivenBack } from '@/core/socket/replace/replacement'
import { Ledger } from '@/panels/Ledger'
import { Photos } from '@/panels/Photos'
import { Tabs } from '@/ui/Tabs'
import { ContactTable } from './map/ContactTable'
import { DropIn } from './seat/DropIn'
import { Eyepiece } from './straighten/Eyepiece'
import type { EyepieceNow } from './straighten/Eyepiece'
import { OrderOfWork } from './straighten/OrderOfWork'
import { Passes } from './passes/Passes'
import { Replace } from './replace/Replace'
import { SeatTrial } from './seat/SeatTrial'
import { StopOrPush } from './straighten/StopOrPush'
import type { Surface } from './map/use-surface'
import { WhatItDoes } from './WhatItDoes'

/** What lies behind the map: the order, each contact's next stroke, what it all does, passes, the CPU's seat. */
export function SocketTabs({
  surface,
  reckoning,
  advice,
  eye,
  giveBack,
}: {
  surface: Surface
  reckoning: Reckoning | null
  advice: PushAdvice | null
  eye: EyepieceNow
  giveBack: (asked: ToGiveBack) => Promise<GivenBack[] | null>
}) {
  const planned = reckoning?.planned ?? null
  const tabs: readonly (readonly [string, ReactNode])[] = [
    ['Order of work', <OrderOfWork key="order" surface={surface} planned={planned} />],
    [
      'Stop or push',
      <div key="push">
        <Eyepiece eye={eye} />
        <StopOrPush surface={surface} advice={advice} />
      </div>,
    ],
    ...(surface.socket.kind === 'pin-grid'
      ? [['Does it drop in', <DropIn key="drop" surface={surface} pins={reckoning?.pins ?? null} />] as const]
      : []),
    ['Replace', <Replace key="replace" surface={surface} reckoning={reckoning} giveBack={giveBack} />],
    ['What it does', <WhatItDoes key="does" now={reckoning?.now ?? null} />],
    ['Table', <ContactTable key="table" surface={surface} planned={planned} />],
    ['Passes', <Passes key="passes" surface={surface} />],
    [
      'Seat, ledger',
      <div key="seat" className="grid grid-cols-2 gap-x-8">
        <SeatTrial surface={surface} />
        <Ledger />
      </div>,
    ],
    ['Photos', <Photos key="photos" />],
  ]
  return (
    <Tabs
      tabs={tabs.map(([name, panel]) => ({ name, panel }))}
      list="flex flex-wrap gap-x-6 border-t border-line pt-2"
      tab="border-b-[3px] border-transparent pb-1 font-semibold text-soft data-selected:border-brass data-selected:text-ink"
      panels="pt-3"
    />
  )
}
