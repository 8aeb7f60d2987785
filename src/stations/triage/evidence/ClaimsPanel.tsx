'use client'
import { sayOutcome } from '@/core/triage/model/outcome-words'
import { percent } from '@/core/maths/percent'
import { believedOf, ownersKnow } from '@/core/intake/known-by'
import type { KnownBy } from '@/core/intake/known-by'
import type { Claim } from '@/core/intake/slice'

import { useState } from 'react'
import { benchTests } from '@/core/triage/model/bench-tests'
import { testOf } from '@/core/triage/reason/hypotheses'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { SelectField } from '@/ui/Field'

/** What was said, by the owner or as a second opinion, in the words of the tests: each weighs as far as it is believed, and is a check to do. */
export function ClaimsPanel() {
  const claims = useJob((j) => j.state.intake.claims)
  const open = claims.filter((c) => !c.checked)
  return (
    <div>
      {open.length === 0 && (
        <p className="text-soft">
          {claims.length === 0
            ? 'Nobody has said anything yet; intake takes down what the owner says.'
            : 'All that was said is checked.'}
        </p>
      )}
      <ol>
        {open.map((claim) => (
          <ClaimToCheck key={claim.seq} claim={claim} />
        ))}
      </ol>
    </div>
  )
}

function ClaimToCheck({ claim }: { claim: Claim }) {
  const append = useJob((j) => j.append)
  const [test, setTest] = useState(claim.weighed?.test ?? '')
  const [outcome, setOutcome] = useState(claim.weighed?.outcome ?? '')
  const [weight, setWeight] = useState<KnownBy>(claim.opinion ? 'judges by photos' : 'saw it')
  const [opened, setOpened] = useState(false)
  const [fault, setFault] = useState('')
  const record = useJob((j) => j.learned.claims)
  const believed = (knows: KnownBy) => believedOf(knows, record[knows])
  const outcomes = test ? testOf(test).outcomes : []
  const check = (verdict: 'holds' | 'wrong') =>
    append('claim checked', { claim: claim.seq, verdict, how: 'seen here' })
  function weigh() {
    if (!test || !outcomes.includes(outcome))
      return setFault('Which test would show it, and what would it show?')
    setFault('')
    append('claim weighed', { claim: claim.seq, test, outcome, reliability: believed(weight), knows: weight })
    setOpened(false)
  }
  return (
    <li className="border-b border-dashed border-line py-2">
      <div className="flex items-baseline justify-between gap-4">
        <p>
          {claim.opinion && <b className="font-semibold">{claim.opinion.by}: </b>}“{claim.text}”{' '}
          {claim.weighed ? (
            <span className="text-soft">
              counts as {testOf(claim.weighed.test).say}: {sayOutcome(claim.weighed.outcome)}, believed{' '}
              <span className="num">{percent(claim.weighed.reliability)}</span>. To check.
            </span>
          ) : (
            <span className="text-soft">counts for nothing yet</span>
          )}
        </p>
        <span className="flex shrink-0">
          <Button look="bare" aria-expanded={opened} onClick={() => setOpened(!opened)}>
            {claim.weighed ? 'Weigh again' : 'What it means'}
          </Button>
          <Button look="bare" onClick={() => check('holds')}>
            Holds
          </Button>
          <Button look="bare" onClick={() => check('wrong')}>
            Wrong
          </Button>
        </span>
      </div>
      {opened && (
        <form
          className="mt-1 grid grid-cols-2 items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            weigh()
          }}
        >
          <SelectField
            label="As if this was done"
            value={test}
            onChange={(e) => {
              setTest(e.target.value)
              setOutcome('')
            }}
          >
            <option value="">…</option>
            {benchTests.map((t) => (
              <option key={t.id} value={t.id}>
                {t.say}
              </option>
            ))}
          </SelectField>
          <SelectField
            label="and it gave"
            value={outcome}
            error={fault || undefined}
            onChange={(e) => setOutcome(e.target.value)}
          >
            <option value="">…</option>
            {outcomes.map((o) => (
              <option key={o} value={o}>
                {sayOutcome(o)}
              </option>
            ))}
          </SelectField>
          {weight === 'judges by photos' ? (
            <p className="text-soft">Whoever says it judges by photos.</p>
          ) : (
            <Choice label="They" value={weight} options={ownersKnow} onChange={setWeight} />
          )}
          <p className="col-span-2 text-[0.92rem] text-soft">
            Believed <span className="num">{percent(believed(weight))}</span>
            {record[weight]
              ? `: of ${record[weight].checked} such claims that were checked here, ${record[weight].held} held.`
              : ', until such claims were checked here.'}
          </p>
          <Button type="submit" className="justify-self-start">
            Weigh it
          </Button>
        </form>
      )}
    </li>
  )
}
