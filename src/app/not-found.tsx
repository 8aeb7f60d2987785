import { NothingHere } from '@/ui/NothingHere'

export default function NotFound() {
  return (
    <main className="px-6">
      <NothingHere />
    </main>
  )
}
