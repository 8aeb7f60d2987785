'use client'
import { useEffect, useMemo, useState } from 'react'
import { useForm } from 'react-hook-form'
import type { Fate, Outcome } from '@/core/hand-back/bodies'
import { fates, outcomes } from '@/core/hand-back/bodies'
import { speaksAgainst } from '@/core/job/asks-first'
import { readVersion, sheetVersions } from '@/core/job/sheet-versions'
import type { SheetRead, SheetVersion } from '@/core/job/sheet-versions'
import { handBackBlockers, proofStanding } from '@/core/job/stations-say'
import { sentence } from '@/core/sentence'
import { SignatureSheet } from '@/frame/SignatureSheet'
import { useJob } from '@/job/JobProvider'
import { StationLink } from '@/frame/StationLink'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { Against } from '@/ui/Against'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { OneLine } from '@/ui/OneLine'
import { SelectField, TextArea, TextField } from '@/ui/Field'
import { useReader } from '@/ui/reader'
import { When } from '@/ui/When'
import { Exchange } from './Exchange'
import { BackTogether } from './BackTogether'
import { SheetPage } from './SheetPage'

/** The sheet as the owner will read it, and what is needed to hand it over. */
export function HandBackStation() {
  const handedBack = useJob(
    (j) => j.state.handBack.done !== null && j.state.handBack.done.outcome !== 'parked',
  )
  const entries = useJob((j) => j.entries)
  const socket = useJob((j) => j.socket)
  const setting = useJob((j) => j.setting)
  const [opened] = useState(() => new Date().toISOString())
  const [whose, setWhose] = useState<Whose>('the owner')
  const [chosen, setChosen] = useState<number | null>(null)
  const versions = useMemo(() => sheetVersions(entries, socket, setting), [entries, socket, setting])
  const version = versions.find((v) => v.version === chosen) ?? versions.at(-1)!
  const last = useMemo(
    () => readVersion(versions.at(-1)!, socket, opened, setting),
    [versions, socket, opened, setting],
  )
  const read = useMemo(
    () => (version === versions.at(-1) ? last : readVersion(version, socket, opened, setting)),
    [version, versions, last, socket, opened, setting],
  )
  return (
    <StationSurface station="hand-back">
      <div className="grid gap-x-6 lg:h-full lg:min-h-0 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_16rem] print:block">
        <Pane label="The sheet" className="pt-2 print:overflow-visible">
          <div className="no-print mb-2 flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
            <Choice
              label="Sheet for"
              hideLabel
              value={whose}
              options={['the owner', 'a technician']}
              words={{ 'the owner': 'For the owner', 'a technician': 'For a technician' }}
              onChange={setWhose}
            />
            {versions.length > 1 && (
              <Choice
                label="Version"
                value={String(version.version)}
                options={versions.map((v) => String(v.version))}
                words={Object.fromEntries(
                  versions.map((v) => [v.version, `${v.version}, ${v.signed ? 'signed' : 'as it stands'}`]),
                )}
                onChange={(v) => setChosen(v === String(versions.length) ? null : Number(v))}
              />
            )}
          </div>
          <SheetPage version={version} read={read} forTechnician={whose === 'a technician'} />
        </Pane>
        <Pane className="no-print">
          <Holds />
          <Away whose={whose} version={version.version} />
          <Signed versions={versions} read={last} />
          {handedBack ? (
            <Later />
          ) : (
            <>
              <BackTogether />
              <HandOver />
              <Advice />
            </>
          )}
        </Pane>
      </div>
    </StationSurface>
  )
}

type Whose = 'the owner' | 'a technician'

/** The owner signs for the sheet; one that was changed since is a new version, and the old one is kept. */
function Signed({
  versions,
  read: { sheet, words },
}: {
  versions: readonly SheetVersion[]
  read: SheetRead
}) {
  const append = useJob((j) => j.append)
  const [signing, setSigning] = useState(false)
  const last = versions.at(-1)!
  const before = versions.findLast((v) => v.signed !== null)
  const sign = (how: string, signature: string | null) => append('sheet signed', { how, signature, words })
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>The owner signs for it</h2>
      {last.signed ? (
        <p className="font-semibold text-verd">
          Signed, {last.signed.how}, <When at={last.signed.at} />
        </p>
      ) : (
        <>
          {before && (
            <p className="text-soft">
              Changed since version {before.version} was signed; that one is kept as it was. This is version{' '}
              {last.version}.
            </p>
          )}
          <div className="mt-1 flex flex-wrap gap-2">
            <Button onClick={() => setSigning(true)}>Sign for the sheet</Button>
            <Button onClick={() => sign('on paper', null)}>Signed on paper</Button>
          </div>
        </>
      )}
      <SignatureSheet
        open={signing}
        title="Read this to the owner, then sign"
        lines={[
          `${sheet.title || 'The board'}: ${sheet.outcome}.`,
          ...(sheet.notTested.length > 0 ? [`Not tested: ${sheet.notTested.length}, as on the sheet.`] : []),
          ...(sheet.leftAsItIs.length > 0 ? [`Left as it is: ${sheet.leftAsItIs.join('; ')}.`] : []),
          ...sheet.oddsLeft.slice(0, 1).map(sentence),
        ]}
        onClose={() => setSigning(false)}
        onSigned={(sha256) => {
          sign('signed here', sha256)
          setSigning(false)
        }}
      />
    </section>
  )
}

function Holds() {
  const state = useJob((j) => j.state)
  const blockers = handBackBlockers(state)
  if (blockers.length === 0 || state.handBack.done) return null
  return (
    <ul className="mt-2 border-l-4 border-ember pl-3" aria-label="What holds the hand-back">
      {blockers.map((hold) => (
        <li key={hold.text}>
          <StationLink
            to={hold.at.station}
            part={hold.at.part}
            className="underline decoration-line underline-offset-4"
          >
            {hold.text}
          </StationLink>
        </li>
      ))}
    </ul>
  )
}

const outcomeWords: Readonly<Record<Outcome, string>> = {
  fixed: 'fixed',
  exchanged: 'exchanged for another board',
  parked: 'parked, stays on the bench',
  'sent out': 'sent out',
  'returned unrepaired': 'returned, not repaired',
  'returned untested': 'returned, not tested',
  withdrawn: 'withdrawn, begun by mistake',
}

const fateWords: Readonly<Record<Fate, string>> = {
  'verified stock': 'stays here as verified stock',
  donor: 'stays here as a donor',
  'parked for its chip to be read': 'stays here until its chip is read',
  'sent out': 'goes to another workshop',
  waste: 'goes to electronic waste',
}
/** What may become of the board that came, by how its job ends; one that was fixed for somebody who has another by now is stock. */
const mayBecome: Readonly<Partial<Record<Outcome, readonly Fate[]>>> = {
  fixed: ['verified stock'],
  exchanged: fates,
  'returned unrepaired': fates,
  'returned untested': fates,
}

interface HandOverForm {
  outcome: Outcome
  price: string
  warranty: string
  fate: '' | Fate
  exchangedFor: string
  text: string
}

function HandOver() {
  const state = useJob((j) => j.state)
  const append = useJob((j) => j.append)
  const { currency, money, readMoney } = useReader()
  const { register, handleSubmit, watch, formState } = useForm<HandOverForm>({
    defaultValues: { outcome: 'fixed', price: '', warranty: '', fate: '', exchangedFor: '', text: '' },
  })
  const outcome = watch('outcome')
  const socket = useJob((j) => j.socket)
  const setting = useJob((j) => j.setting)
  const [asked, setAsked] = useState<readonly string[]>([])
  const held = handBackBlockers(state).length > 0 && outcome !== 'parked' && outcome !== 'withdrawn'
  const limit = state.intake.ticket.limitMinor
  const priceMinor = readMoney(watch('price'))
  const over = priceMinor !== null && limit !== null && priceMinor > limit
  const handOver = handleSubmit(({ outcome, price, warranty, fate, exchangedFor, text }) => {
    const { left } = proofStanding(state, socket, setting)
    const body = {
      outcome,
      priceMinor: readMoney(price),
      text: text.trim(),
      ...(outcome === 'fixed' && warranty.trim() !== '' ? { warrantyMonths: Number(warranty) } : {}),
      ...(outcome === 'fixed' && 'odds' in left ? { left: left.odds } : {}),
      ...(fate !== '' && mayBecome[outcome]?.includes(fate) ? { fate } : {}),
      ...(outcome === 'exchanged' && exchangedFor !== '' ? { exchangedFor } : {}),
    }
    const against = speaksAgainst('hand-back', body, state, socket, setting)
    if (against.join('\n') !== asked.join('\n')) return setAsked(against)
    append('hand-back', { ...body, ...(against.length > 0 ? { despite: against } : {}) })
  })
  return (
    <form className="flex flex-col gap-3 border-t border-line pt-2.5 pb-4" onSubmit={handOver}>
      <h2>Hand it over</h2>
      <SelectField label="As" {...register('outcome', { onChange: () => setAsked([]) })}>
        {outcomes.map((as) => (
          <option key={as} value={as}>
            {outcomeWords[as]}
          </option>
        ))}
      </SelectField>
      <TextField
        label={`The bill, ${currency}`}
        {...register('price', {
          validate: (price) => !Number.isNaN(readMoney(price)) || 'An amount, like 450 or 450,50.',
        })}
        error={formState.errors.price?.message}
        hint={
          over
            ? `More than the ${money(limit)} agreed: change the offer first.`
            : limit === null
              ? undefined
              : `agreed: up to ${money(limit)}`
        }
        inputMode="decimal"
        className="num"
      />
      {outcome === 'fixed' && (
        <TextField
          label="Warranty on what was repaired, months"
          {...register('warranty', {
            validate: (months) =>
              (/^\s*(\d{1,2})?\s*$/.test(months) && Number(months) <= 60) ||
              'Whole months, 0 to 60, like 3; empty for none.',
          })}
          error={formState.errors.warranty?.message}
          inputMode="numeric"
          className="num"
        />
      )}
      {outcome === 'exchanged' && <Exchange chosen={register('exchangedFor')} />}
      {mayBecome[outcome] && (
        <SelectField label="The board that came" {...register('fate')}>
          <option value="">goes back to the owner</option>
          {mayBecome[outcome].map((fate) => (
            <option key={fate} value={fate}>
              {fateWords[fate]}
            </option>
          ))}
        </SelectField>
      )}
      <TextArea label="Message to the owner" {...register('text')} />
      {asked.length > 0 && <Against what="this hand-back" against={asked} />}
      <Button type="submit" look="first" disabled={held}>
        {held ? 'Held' : asked.length > 0 ? 'Hand it back all the same' : 'Hand it back'}
      </Button>
    </form>
  )
}

function Advice() {
  const append = useJob((j) => j.append)
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>Advice for the sheet</h2>
      <OneLine
        label="Advice for the sheet"
        placeholder="lower the CPU straight down"
        keep="Put it on"
        wanted="What should the owner know? One sentence."
        onKeep={(text) => append('advice', { text })}
      />
    </section>
  )
}

/** The customer sometimes makes the last test at home. */
function Later() {
  const later = useJob((j) => j.state.handBack.lateOutcomes)
  const append = useJob((j) => j.append)
  const [text, setText] = useState('')
  const [empty, setEmpty] = useState(false)
  const say = (holds: boolean) => {
    setEmpty(!text.trim())
    if (!text.trim()) return
    append('late outcome', { text: text.trim(), holds })
    setText('')
  }
  return (
    <section className="flex flex-col gap-2 border-t border-line pt-2.5 pb-4">
      <h2>Owner’s feedback, later</h2>
      <ul>
        {later.map((l) => (
          <li key={l.seq} className="border-b border-dashed border-line py-1">
            {l.text}{' '}
            <span className={l.holds ? 'text-verd' : 'font-semibold text-ember'}>
              {l.holds ? 'it holds' : 'it came back'}
            </span>
          </li>
        ))}
      </ul>
      <TextField
        label="What they say"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={empty ? 'What does the owner say? A few words.' : undefined}
        placeholder="runs since a week"
      />
      <div className="flex gap-2">
        <Button onClick={() => say(true)}>It holds</Button>
        <Button onClick={() => say(false)}>It does not</Button>
      </div>
    </section>
  )
}

/** What leaves the bench: the sheet on paper or as a file, the whole job as a ZIP. */
function Away({ whose, version }: { whose: Whose; version: number }) {
  const tag = useJob((j) => j.tag)
  const waits = useJob((j) => j.unsent.length > 0)
  const link = 'block py-1 underline decoration-line underline-offset-4'
  const query = `version=${version}${whose === 'the owner' ? '' : '&for=technician'}`
  // Has the printer ready while the sheet is read.
  useEffect(() => void fetch(`/api/jobs/${tag}/sheet`, { method: 'HEAD' }).catch(() => undefined), [tag])
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>Take it along</h2>
      {/* Always there: what lies below it does not move when a line is saved, nor under a press. */}
      <p className={waits ? 'text-brass' : 'text-soft'}>Lines that are not saved yet are not in the files.</p>
      <a className={link} href={`/api/jobs/${tag}/sheet?${query}`} download>
        Sheet as PDF
      </a>
      <button type="button" className={link} onClick={() => window.print()}>
        Print the sheet
      </button>
      <a className={link} href={`/api/jobs/${tag}/zip`} download>
        Whole job as ZIP
      </a>
      <a className={link} href={`/api/jobs/${tag}/zip?owner=no`} download>
        ZIP without the owner
      </a>
    </section>
  )
}
