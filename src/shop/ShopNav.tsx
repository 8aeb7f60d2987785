'use client'
import Link from 'next/link'
import { usePathname } from 'next/navigation'

const places = [
  ['/', 'Bench'],
  ['/shelf', 'Shelf'],
  ['/library', 'Library'],
  ['/practice', 'Practice'],
  ['/record', 'Record'],
  ['/people', 'People'],
] as const

/** The places outside a job, with the one where one is. */
export function ShopNav() {
  const here = `/${usePathname().split('/')[1]}`
  return (
    <nav aria-label="Shop" className="flex flex-1 flex-wrap gap-x-5 gap-y-1">
      {places.map(([href, name]) => (
        <Link
          key={href}
          href={href}
          aria-current={href === here ? 'page' : undefined}
          className={href === here ? 'border-b-[3px] border-brass pb-0.5 font-bold' : 'pb-0.5'}
        >
          {name}
        </Link>
      ))}
    </nav>
  )
}
