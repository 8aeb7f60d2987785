'use client'
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react'
import { useState } from 'react'
import type { ReactNode } from 'react'

export interface TabOf {
  readonly name: string
  readonly label?: ReactNode
  readonly panel: ReactNode
}

/**
 * Panels of which one is open. A tab opens at the press, not at the release: while odds and order are reckoned anew the
 * page above may grow between the two, and the tab would have moved away from under the pointer.
 */
export function Tabs({
  tabs,
  list,
  tab,
  panels,
}: {
  tabs: readonly TabOf[]
  /** Classes of the list, of each tab, and of what holds the panels. */
  list: string
  tab: string
  panels: string
}) {
  const [open, setOpen] = useState(0)
  return (
    <TabGroup selectedIndex={open} onChange={setOpen}>
      <TabList className={list}>
        {tabs.map(({ name, label }, i) => (
          <Tab
            key={name}
            onPointerDown={(event) => event.button === 0 && setOpen(i)}
            className={`${tab} outline-none data-focus:outline-2 data-focus:outline-brass`}
          >
            {label ?? name}
          </Tab>
        ))}
      </TabList>
      <TabPanels className={panels}>
        {tabs.map(({ name, panel }) => (
          <TabPanel key={name} className="outline-none">
            {panel}
          </TabPanel>
        ))}
      </TabPanels>
    </TabGroup>
  )
}
