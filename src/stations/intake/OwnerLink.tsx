'use client'
import { JobLinks } from '@/frame/JobLinks'

/** A link by which the owner sees how the board stands, and answers. */
export function OwnerLink() {
  return (
    <section id="owner-link" aria-label="Link for the owner" className="border-t border-line pt-2.5 pb-4">
      <h2>A link for the owner</h2>
      <p className="text-soft">
        It opens how this board stands, and nothing else; changed offers are answered there, and how it went
        on at home.
      </p>
      <JobLinks asked={null} />
    </section>
  )
}
