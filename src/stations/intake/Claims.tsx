'use client'
import type { Claim } from '@/core/intake/slice'

import { useState } from 'react'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { OneLine } from '@/ui/OneLine'

/** What the owner says, and second opinions that were asked for: each stays a claim, and work, until somebody here has checked it. */
export function Claims() {
  const claims = useJob((j) => j.state.intake.claims)
  const append = useJob((j) => j.append)
  return (
    <section id="claims" className="border-t border-line pt-2.5 pb-4">
      <h2>What was said</h2>
      {claims.length === 0 && (
        <p className="text-soft">
          Nothing yet. “It worked until Tuesday”, “nobody touched the socket”: write it as it is said.
        </p>
      )}
      <ol>
        {claims.map((claim) => (
          <ClaimLine key={claim.seq} claim={claim} />
        ))}
      </ol>
      <OneLine
        label="Another thing the owner says"
        placeholder="and what else?"
        keep="Note it"
        wanted="What does the owner say? Write it as it is said."
        onKeep={(text) => append('claim', { text })}
      />
    </section>
  )
}

function ClaimLine({ claim }: { claim: Claim }) {
  const append = useJob((j) => j.append)
  const [how, setHow] = useState('')
  const answer = (verdict: 'holds' | 'wrong' | 'cannot tell') =>
    append('claim checked', { claim: claim.seq, verdict, how: how.trim() })
  return (
    <li className="border-b border-dashed border-line py-1.5">
      <p>
        <span aria-hidden={!claim.opinion} className="text-soft">
          {claim.opinion ? `${claim.opinion.by}, a second opinion: ` : 'says: '}
        </span>
        {claim.text}
        {claim.checked && (
          <span className={claim.checked.verdict === 'wrong' ? 'font-semibold text-ember' : 'text-soft'}>
            {' '}
            {claim.checked.verdict}
            {claim.checked.how && `, ${claim.checked.how}`}
          </span>
        )}
      </p>
      {!claim.checked && (
        <div className="mt-0.5 flex flex-wrap items-center gap-x-2">
          <input
            value={how}
            onChange={(e) => setHow(e.target.value)}
            aria-label={`How “${claim.text}” was checked`}
            placeholder="checked how?"
            className="w-52 py-0.5!"
          />
          <Button look="bare" onClick={() => answer('holds')}>
            Holds
          </Button>
          <Button look="bare" onClick={() => answer('wrong')}>
            Wrong
          </Button>
          <Button look="bare" onClick={() => answer('cannot tell')}>
            Cannot tell
          </Button>
        </div>
      )}
    </li>
  )
}
