'use client'
import { createContext, useContext, useEffect, useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import { readMoney, sayMoment, sayMoney, sayNumber, usualReader, zoneOf } from '@/core/reader'
import type { MomentStyle, Reader } from '@/core/reader'

const Context = createContext<Reader>(usualReader)

/** The reader as the server knows them; the browser's zone is kept in a cookie, so that the next page has it from the start. */
export function ReaderProvider({ reader, children }: { reader: Reader; children: ReactNode }) {
  const [zone, setZone] = useState(reader.zone)
  useEffect(() => {
    const here = zoneOf(Intl.DateTimeFormat().resolvedOptions().timeZone)
    if (here === zone) return
    document.cookie = `zone=${encodeURIComponent(here)}; path=/; max-age=31536000; samesite=lax`
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what the server could not know is put right once
    setZone(here)
  }, [zone])
  const now = useMemo(() => ({ ...reader, zone }), [reader, zone])
  return <Context value={now}>{children}</Context>
}

/** How numbers, money and moments are written and read here. */
export function useReader() {
  const reader = useContext(Context)
  return {
    currency: reader.currency,
    number: (n: number) => sayNumber(reader, n),
    money: (minor: number) => sayMoney(reader, minor),
    readMoney: (text: string) => readMoney(reader, text),
    moment: (at: string, style?: MomentStyle) => sayMoment(reader, at, style),
  }
}

/** A count in the reader's locale. */
export function Count({ n }: { n: number }) {
  return useReader().number(n)
}
