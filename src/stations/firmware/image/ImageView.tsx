'use client'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { hex } from '@/core/firmware/image/image-bytes'
import type { Comparison } from '@/core/firmware/image/compare'
import type { OwnedStretch } from '@/core/firmware/image/owner'
import type { ImageLine } from '@/core/firmware/slice'
import { microcodeSupport } from '@/core/firmware/route/microcode-support'
import { supportOf } from '@/core/firmware/route/support-table'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { Count, useReader } from '@/ui/reader'
import type { Seen } from '@/workers/image.worker'
import { ByteField } from './ByteField'
import { HexView } from './HexView'
import { cellsOf } from './field-layout'
import type { Images } from './use-images'

const ownerWords = {
  code: 'code',
  empty: 'empty',
  own: 'the board’s own',
  unknown: 'not known',
} as const

type Shown = 'parts' | 'bytes' | 'findings'

/** One image: the field of its blocks, its parts, its bytes, what is wrong with it; beside it another to compare. */
export function ImageView({
  image,
  beside,
  images,
}: {
  image: ImageLine
  beside: ImageLine | null
  images: Pick<Images, 'remote' | 'urlOf'>
}) {
  const { remote, urlOf } = images
  const { number } = useReader()
  const references = useJob((j) => j.setting.references)
  const support = useMemo(() => supportOf(references), [references])
  const url = urlOf(image.file)
  const besideUrl = beside && urlOf(beside.file)
  const [seen, setSeen] = useState<{ url: string; is: Seen } | null>(null)
  const [compared, setCompared] = useState<{ of: string; is: Comparison } | null>(null)
  const [fault, setFault] = useState('')
  const [at, setAt] = useState(0)
  const [shown, setShown] = useState<Shown>('parts')
  useEffect(() => {
    let here = true
    const failed = () => here && setFault('The image does not come from the server. Open the station again.')
    void remote()
      .see(url)
      .then((is) => here && setSeen({ url, is }))
      .catch(failed)
    if (besideUrl)
      void remote()
        .compare(url, besideUrl)
        .then((is) => here && setCompared({ of: `${url} ${besideUrl}`, is }))
        .catch(failed)
    return () => {
      here = false
    }
  }, [remote, url, besideUrl])
  const is = seen?.url === url ? seen.is : null
  const comparison = compared?.of === `${url} ${besideUrl}` ? compared.is : null
  const cells = useMemo(
    () => (is ? cellsOf(image.bytes, is.owners, is.entropy, comparison?.blocks ?? null) : []),
    [is, image.bytes, comparison],
  )
  const page = useCallback((from: number, to: number) => remote().page(url, from, to), [remote, url])
  const besidePage = useCallback(
    (from: number, to: number) => remote().page(besideUrl!, from, to),
    [remote, besideUrl],
  )
  if (fault)
    return (
      <p role="alert" className="text-ember">
        {fault}
      </p>
    )
  if (!is) return <p role="status">Looking into {image.name}…</p>
  const cell = cells.findIndex((c) => at >= c.from && at < c.to)
  const { findings } = is.inspection
  const carried = microcodeSupport(
    is.inspection.microcodes,
    support,
    image.versions.find((v) => support?.releaseAt.has(v)) ?? null,
  )
  const against = carried.filter((c) => c.contradicts).length
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-1.5">
      {cells.length > 0 && (
        <ByteField
          cells={cells}
          at={Math.max(0, cell)}
          say={sayAt(is.owners, cells[Math.max(0, cell)]!)}
          onMove={(i) => setAt(cells[i]!.from)}
        />
      )}
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <Choice
          label="Shown"
          hideLabel
          value={shown}
          options={['parts', 'bytes', 'findings']}
          words={{ findings: `findings (${findings.length + against})` }}
          onChange={setShown}
        />
        {comparison && (
          <span className="text-[0.88rem] text-soft">
            {comparison.differing === 0
              ? 'not a byte differs'
              : `${number(comparison.differing)} bytes differ`}
            <Button
              look="bare"
              className="py-0!"
              disabled={comparison.runs.length === 0}
              onClick={() => {
                const code = is.owners.filter((s) => s.owner === 'code')
                const inCode = comparison.runs.filter((r) => code.some((s) => r.from < s.to && r.to > s.from))
                const runs = inCode.length > 0 ? inCode : comparison.runs
                setAt((runs.find((r) => r.from > at) ?? runs[0]!).from)
              }}
            >
              to the next in code
            </Button>
          </span>
        )}
      </div>
      <div className="min-h-0 flex-1">
        {shown === 'parts' && <Parts owners={is.owners} comparison={comparison} at={at} onGo={setAt} />}
        {shown === 'bytes' && image.bytes > 0 && (
          <HexView bytes={image.bytes} at={at} page={page} beside={besideUrl ? besidePage : null} />
        )}
        {shown === 'findings' && (
          <ul className="h-full overflow-y-auto text-[0.9rem]" tabIndex={0} aria-label="Findings">
            {carried.map((c) => (
              <li key={c.say} className={c.contradicts ? 'font-semibold text-ember' : ''}>
                {c.say}
              </li>
            ))}
            {findings.length === 0 && (
              <li className="text-soft">Nothing: lengths and sums are as the image itself says.</li>
            )}
            {findings.slice(0, 200).map((f) => (
              <li key={`${f.at} ${f.text}`}>
                <button type="button" className="num underline" onClick={() => setAt(f.at)}>
                  {hex(f.at)}
                </button>{' '}
                {f.text}
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  )
}

function sayAt(
  owners: readonly OwnedStretch[],
  { from, to, differing }: { from: number; to: number; differing: number },
) {
  const [first, ...more] = owners.filter((s) => s.from < to && s.to > from)
  const parts = first ? `${sayPart(first)}${more.length > 0 ? ` and ${more.length} more` : ''}` : ''
  return `${hex(from)} to ${hex(to)}: ${parts}${differing > 0 ? `; ${differing} bytes differ` : ''}`
}

const sayPart = (s: OwnedStretch) =>
  s.kind === 'file' || s.kind === 'volume header' || s.kind === 'padding'
    ? `${s.kind}, ${ownerWords[s.owner]}`
    : s.owner === 'own' && s.kind === 'volume data'
      ? 'settings and keys'
      : s.name === 'descriptor'
        ? 'descriptor'
        : [s.kind === 'region' ? s.name : s.kind, ownerWords[s.owner]].join(', ')

/** The parts of an image in words: the field’s twin. */
function Parts({
  owners,
  comparison,
  at,
  onGo,
}: {
  owners: readonly OwnedStretch[]
  comparison: Comparison | null
  at: number
  onGo: (at: number) => void
}) {
  const differing = new Map(comparison?.stretches.map((s) => [s.from, s.differing]))
  return (
    <div className="h-full overflow-y-auto max-lg:max-h-80" tabIndex={0} role="region" aria-label="Parts">
      <table className="w-full text-[0.85rem] leading-snug [&_td]:py-0.5">
        <thead className="sr-only">
          <tr>
            <th>From</th>
            <th>Bytes</th>
            <th>What</th>
            <th>Differs</th>
          </tr>
        </thead>
        <tbody>
          {owners.map((s) => (
            <tr
              key={s.from}
              className={`border-b border-line ${at >= s.from && at < s.to ? 'bg-brass-bg' : ''}`}
            >
              <td className="num">
                <button type="button" className="underline decoration-line" onClick={() => onGo(s.from)}>
                  {hex(s.from)}
                </button>
              </td>
              <td className="num pr-2 text-right">
                <Count n={s.to - s.from} />
              </td>
              <td>{sayPart(s)}</td>
              <td className="num text-right text-ember">
                {differing.get(s.from) ? <Count n={differing.get(s.from)!} /> : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
