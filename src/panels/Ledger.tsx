'use client'
import { ledgerOf } from '@/core/board/loose'
import type { LedgerItem } from '@/core/board/loose'

import { OneLine } from '@/ui/OneLine'
import { When } from '@/ui/When'
import { useJob } from '@/job/JobProvider'

/** Fragments and parts that came off: the gate stays shut until each is accounted for. */
export function Ledger() {
  const ledger = ledgerOf(useJob((j) => j.state.board.loose))
  const append = useJob((j) => j.append)
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
          <LedgerLine key={item.id} item={item} />
        ))}
      </ul>
      <OneLine
        label="What is missing"
        placeholder="tip of AK37, a driver bit…"
        keep="Add a missing part"
        wanted="What is missing? Like: tip of AK37."
        onKeep={(what) => append('missing', { what, from: 'bench' })}
      />
    </section>
  )
}

function LedgerLine({ item }: { item: LedgerItem }) {
  const append = useJob((j) => j.append)
  return (
    <li className="border-b border-dashed border-line py-1.5">
      {item.what}
      <span className="text-soft">
        , from the {item.from}, <When at={item.at} as="time" />
      </span>
      {item.where ? (
        <span className="text-verd">: {item.where}</span>
      ) : (
        <OneLine
          label={`Where ${item.what} is`}
          placeholder="in the dish; out with the tweezers"
          keep="Found it"
          wanted="Where is it? Like: in the dish."
          onKeep={(where) => append('accounted', { item: item.id, where })}
        />
      )}
    </li>
  )
}
