'use client'
import { faultIds, faults } from '@/core/triage/model/faults'
import type { FaultId } from '@/core/triage/model/faults'
import type { FaultOdds } from '@/core/triage/model/fault-table'
import { stages } from '@/core/triage/model/stage'
import { repairOf } from '@/core/triage/model/repair'
import { succeeds } from '@/core/triage/model/repair-record'
import type { RepairTally } from '@/core/triage/model/repair-record'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { TableSays } from '@/ui/TableSays'
import { useTable } from '@/ui/use-table'

/** How often it was repaired here, and with what end. */
function repairedHere(id: FaultId, repairs: readonly RepairTally[]) {
  const here = repairs.find((r) => r.fault === id)
  return (
    here && (
      <span className="font-sans text-[0.85rem] text-soft">
        {' '}
        {here.took} of {here.tried} here
      </span>
    )
  )
}

const percent = (odds: number) => (odds * 100).toFixed(odds < 0.01 ? 2 : 1)

/** The faults the reasoner knows, in the order a start meets them, how often each comes over this bench, and how often its repair takes. */
export function FaultSheet({ own, repairs }: { own: FaultOdds; repairs: readonly RepairTally[] }) {
  const { answer, busy, send, drop } = useTable('/api/faults')
  const mine = Object.keys(own).length
  const ordered = [...faultIds].sort(
    (a, b) => stages.indexOf(faults[a].stage) - stages.indexOf(faults[b].stage),
  )
  return (
    <>
      <div className="flex items-start justify-between gap-6">
        <div>
          <h1>The faults triage knows</h1>
          <p className="mt-0.5 max-w-[44rem] text-soft">
            {mine > 0
              ? `${mine} of ${faultIds.length} have this shop’s own odds; the rest are bench defaults.`
              : 'All odds are bench defaults. A table of your own, from your record, makes the first guess better.'}{' '}
            How often a repair holds is learned from the jobs that are closed.
          </p>
        </div>
        <div className="flex shrink-0 items-center gap-3">
          <FileButton label="Fault table to import" disabled={busy} onFile={(file) => void send(file)}>
            {busy ? 'Reading…' : 'Import odds'}
          </FileButton>
          <a href="/api/faults" download className="underline">
            CSV
          </a>
          {mine > 0 && (
            <Button look="bare" disabled={busy} onClick={() => void drop()}>
              Back to the defaults
            </Button>
          )}
        </div>
      </div>
      <div className="mt-2">
        <TableSays answer={answer}>Kept. It counts on every job from now on.</TableSays>
      </div>
      <table className="mt-4 w-full">
        <thead>
          <tr className="border-b-2 border-ink text-left">
            <th scope="col" className="py-1">
              Stops at
            </th>
            <th scope="col">Fault</th>
            <th scope="col">Repaired at</th>
            <th scope="col" className="text-right">
              Shows, %
            </th>
            <th scope="col" className="text-right">
              On the bench, %
            </th>
            <th scope="col" className="text-right">
              Repair holds, %
            </th>
            <th scope="col" className="text-right">
              Repair, min
            </th>
          </tr>
        </thead>
        <tbody>
          {ordered.map((id, i) => (
            <tr key={id} className="border-b border-dashed border-line">
              <td className="py-1 text-soft">
                {faults[id].stage === faults[ordered[i - 1]!]?.stage ? '' : faults[id].stage}
              </td>
              <td>{faults[id].say}</td>
              <td className="text-soft">{faults[id].at}</td>
              <td className="num text-right text-soft">{Math.round(faults[id].shows * 100)}</td>
              <td className="num text-right">
                {percent(own[id] ?? faults[id].odds)}
                {own[id] !== undefined && <span className="font-sans text-[0.85rem] text-soft"> own</span>}
              </td>
              <td className="num text-right">
                {Math.round(succeeds(id, repairs) * 100)}
                {repairedHere(id, repairs)}
              </td>
              <td className="num text-right text-soft">{repairOf(id).minutes}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
