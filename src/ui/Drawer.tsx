'use client'
import { Activity, useId, useState } from 'react'
import type { ReactNode } from 'react'
import { letGo } from './keys'
import { tabList, tabName } from './Tabs'

export interface DrawerOf<Name extends string> {
  readonly name: Name
  readonly panel: ReactNode
}

/** A row of names under a surface; a press draws the panel out over it, another puts it away with what is typed in it. */
export function Drawer<Name extends string>({
  panels,
  open,
  onOpen,
}: {
  panels: readonly DrawerOf<Name>[]
  open: Name | null
  onOpen: (name: Name | null) => void
}) {
  const id = useId()
  const [visited, setVisited] = useState<ReadonlySet<Name>>(new Set())
  if (open && !visited.has(open)) setVisited(new Set([...visited, open]))
  return (
    <>
      {panels
        .filter(({ name }) => visited.has(name))
        .map(({ name, panel }) => (
          <Activity key={name} mode={name === open ? 'visible' : 'hidden'}>
            <section
              id={name === open ? id : undefined}
              aria-label={name}
              className="@container relative min-h-0 border-t-2 border-ink bg-sheet py-2 lg:col-start-1 lg:row-start-1 lg:max-h-[62%] lg:self-end lg:overflow-y-auto lg:pr-2 z-10"
            >
              {panel}
            </section>
          </Activity>
        ))}
      <div className={`${tabList} lg:col-span-full lg:row-start-2`} role="group" aria-label="Under the map">
        {panels.map(({ name }) => (
          <button
            key={name}
            type="button"
            aria-expanded={name === open}
            aria-pressed={undefined}
            aria-controls={name === open ? id : undefined}
            onClick={(event) => {
              letGo(event)
              onOpen(name === open ? null : name)
            }}
            className={`${tabName} aria-expanded:border-brass aria-expanded:text-ink`}
          >
            {name}
          </button>
        ))}
      </div>
    </>
  )
}
