'use client'
import type { Station } from '@/core/board/station'

import type { AnchorHTMLAttributes } from 'react'
import { useJob } from '@/job/JobProvider'
import { pointAt } from './point'

const addressOf = (tag: string, station: Station, part?: string) =>
  `/jobs/${tag}/${station}${part ? `#${encodeURIComponent(part)}` : ''}`

/** Goes to a station of this job, or to a part of it, without asking the server: it may be away. */
export function useGoTo(): (station: Station, part?: string) => void {
  const tag = useJob((j) => j.tag)
  return (station, part) => {
    window.history.pushState(null, '', addressOf(tag, station, part))
    if (part) pointAt(part)
  }
}

type Props = AnchorHTMLAttributes<HTMLAnchorElement> & { readonly to: Station; readonly part?: string }

export function StationLink({ to, part, ...rest }: Props) {
  const tag = useJob((j) => j.tag)
  const goTo = useGoTo()
  return (
    <a
      href={addressOf(tag, to, part)}
      onClick={(event) => {
        if (event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return
        event.preventDefault()
        goTo(to, part)
      }}
      {...rest}
    />
  )
}
