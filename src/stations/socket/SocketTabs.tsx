'use client'
import { memo } from 'react'
import type { PushAdvice } from '@/core/socket/straighten/push'
import type { Reckoning, ToGiveBack } from '@/core/socket/straighten/reckon'
import type { GivenBack } from '@/core/socket/replace/replacement'
import { Ledger } from '@/panels/Ledger'
import { Photos } from '@/panels/Photos'
import { Drawer } from '@/ui/Drawer'
import type { DrawerOf } from '@/ui/Drawer'
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

export type SocketTab =
  | 'Order'
  | 'Leave or straighten'
  | 'Function'
  | 'Fit'
  | 'Replace'
  | 'Re-inspection'
  | 'Seating and loose parts'
  | 'Table'
  | 'Photos'

/** What lies behind the map: the order, each contact's next stroke, what it all does, inspections, the CPU's seat. */
export const SocketTabs = memo(function SocketTabs({
  surface,
  reckoning,
  advice,
  eye,
  giveBack,
  open,
  onOpen,
}: {
  surface: Surface
  reckoning: Reckoning | null
  advice: PushAdvice | null
  eye: EyepieceNow
  giveBack: (asked: ToGiveBack) => Promise<GivenBack[] | null>
  open: SocketTab | null
  onOpen: (tab: SocketTab | null) => void
}) {
  const planned = reckoning?.planned ?? null
  const panels: readonly DrawerOf<SocketTab>[] = [
    { name: 'Order', panel: <OrderOfWork surface={surface} planned={planned} /> },
    {
      name: 'Leave or straighten',
      panel: (
        <>
          <Eyepiece eye={eye} />
          <StopOrPush surface={surface} advice={advice} />
        </>
      ),
    },
    { name: 'Function', panel: <WhatItDoes now={reckoning?.now ?? null} /> },
    ...(surface.socket.kind === 'pin-grid'
      ? [{ name: 'Fit' as const, panel: <DropIn surface={surface} pins={reckoning?.pins ?? null} /> }]
      : []),
    { name: 'Replace', panel: <Replace surface={surface} reckoning={reckoning} giveBack={giveBack} /> },
    { name: 'Re-inspection', panel: <Passes surface={surface} /> },
    {
      name: 'Seating and loose parts',
      panel: (
        <div className="grid gap-x-8 gap-y-4 @2xl:grid-cols-2">
          <SeatTrial surface={surface} />
          <Ledger />
        </div>
      ),
    },
    { name: 'Table', panel: <ContactTable surface={surface} planned={planned} /> },
    { name: 'Photos', panel: <Photos /> },
  ]
  return <Drawer panels={panels} open={open} onOpen={onOpen} />
})
