'use client'
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react'
import { useState } from 'react'
import type { ReactNode } from 'react'

export interface TabOf<Name extends string> {
  readonly name: Name
  readonly label?: ReactNode
  readonly panel: ReactNode
}

/**
 * Panels of which one is open, in a row of names; the panel scrolls by itself. A tab opens at the press, not at the
 * release. One that was open stays as it was left: what is typed or runs in it is not lost when another opens itself.
 */
export function Tabs<Name extends string>({
  tabs,
  open,
  onOpen,
}: {
  tabs: readonly TabOf<Name>[]
  open: Name
  onOpen: (name: Name) => void
}) {
  const [visited, setVisited] = useState<ReadonlySet<Name>>(new Set([open]))
  if (!visited.has(open)) setVisited(new Set([...visited, open]))
  return (
    <TabGroup
      selectedIndex={tabs.findIndex((t) => t.name === open)}
      onChange={(i) => onOpen(tabs[i]!.name)}
      className="flex min-h-0 flex-col lg:h-full"
    >
      <TabList className={tabList}>
        {tabs.map(({ name, label }) => (
          <Tab key={name} onPointerDown={(event) => event.button === 0 && onOpen(name)} className={tabName}>
            {label ?? name}
          </Tab>
        ))}
      </TabList>
      <TabPanels className="@container relative min-h-0 flex-1 lg:overflow-y-auto lg:pr-1.5">
        {tabs.map(({ name, panel }) => (
          <TabPanel key={name} unmount={!visited.has(name)} className="pt-2 outline-none lg:h-full">
            {panel}
          </TabPanel>
        ))}
      </TabPanels>
    </TabGroup>
  )
}

export const tabList =
  'flex shrink-0 gap-x-1.5 overflow-x-auto overflow-y-hidden border-b border-line text-[0.8rem] whitespace-nowrap max-lg:flex-wrap'
export const tabName =
  'border-b-[3px] border-transparent pt-1.5 pb-0.5 font-semibold text-soft outline-none data-focus:outline-2 data-focus:outline-brass data-selected:border-brass data-selected:text-ink aria-pressed:border-brass aria-pressed:text-ink'
