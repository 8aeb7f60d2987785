import Link from 'next/link'
import type { AtHandItem } from '@/core/parts/stock/stock-item'

/** Which jobs hold pieces of it. */
export const HeldFor = ({ of }: { of: AtHandItem }) =>
  of.held.map(({ tag, count }) => (
    <span key={tag} className="mr-2 text-soft">
      {count} held for{' '}
      <Link href={`/jobs/${tag}/parts`} className="underline">
        {tag}
      </Link>
    </span>
  ))
