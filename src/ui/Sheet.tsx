'use client'
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import { X } from 'lucide-react'
import type { ReactNode } from 'react'

/** A sheet laid over the surface; Escape puts it away. */
export function Sheet({
  open,
  title,
  onClose,
  children,
  wide = false,
}: {
  open: boolean
  title: string
  onClose: () => void
  children: ReactNode
  wide?: boolean
}) {
  return (
    <Dialog open={open} onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-[#14181b]/60" aria-hidden="true" />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-6 pt-[8vh]">
        <DialogPanel
          className={`w-full ${wide ? 'max-w-3xl' : 'max-w-lg'} rounded-sheet border-2 border-ink bg-sheet p-6 text-ink`}
        >
          <div className="mb-4 flex items-baseline justify-between gap-6">
            <DialogTitle as="h2" className="text-xl font-semibold">
              {title}
            </DialogTitle>
            <button type="button" onClick={onClose} aria-label="Put away" className="p-1">
              <X size={20} aria-hidden="true" />
            </button>
          </div>
          {children}
        </DialogPanel>
      </div>
    </Dialog>
  )
}
