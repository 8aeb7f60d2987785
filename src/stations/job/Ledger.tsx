'use client'
import { useState } from 'react'
import type { LedgerItem } from '@/core/job/state'
import { Button } from '@/ui/Button'
import { When } from '@/ui/When'
import { useJob } from './JobProvider'

/** Fragments and parts that came off: the gate stays shut until each is accounted for. */
export function Ledger() {
  const ledger = useJob((j) => j.state.ledger)
  const put = useJob((j) => j.put)
  const [what, setWhat] = useState('')
  return (
    <section id="ledger">
      <h3 className="font-semibold">Fragments and parts that came off</h3>
      {ledger.length === 0 && (
        <p className="text-soft">
          None. A tip that snaps off stands here by itself; note what else is missing.
        </p>
      )}
      <ul>
        {ledger.map((item) => (
          <LedgerLine key={item.seq} item={item} />
        ))}
      </ul>
      <form
        className="mt-2 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (what.trim()) put('missing', { what: what.trim(), from: 'bench' })
          setWhat('')
        }}
      >
        <input
          value={what}
          onChange={(e) => setWhat(e.target.value)}
          aria-label="What is missing"
          placeholder="tip of AK37, a driver bit…"
          className="w-full"
        />
        <Button type="submit" className="shrink-0">
          Look for it
        </Button>
      </form>
    </section>
  )
}

function LedgerLine({ item }: { item: LedgerItem }) {
  const put = useJob((j) => j.put)
  const [where, setWhere] = useState('')
  return (
    <li className="border-b border-dashed border-line py-1.5">
      {item.what}
      <span className="text-soft">
        , from the {item.from}, <When at={item.at} as="time" />
      </span>
      {item.where ? (
        <span className="text-verd">: {item.where}</span>
      ) : (
        <form
          className="mt-1 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (where.trim()) put('accounted', { item: item.seq, where: where.trim() })
          }}
        >
          <input
            value={where}
            onChange={(e) => setWhere(e.target.value)}
            aria-label={`Where ${item.what} is`}
            placeholder="in the dish; out with the tweezers"
            className="w-full py-1!"
          />
          <Button type="submit" className="shrink-0 py-1!">
            It is there
          </Button>
        </form>
      )}
    </li>
  )
}
