import { Support } from '@/core/firmware/route/support-table'
import { benchCpus, boardsWithSupport } from '@/data/bench-cpus'
import { heavy } from '@/server/heavy'
import { signedIn } from '@/server/signed-in'
import { KitSheet } from '@/shop/library/KitSheet'

export default async function KitPage({ searchParams }: { searchParams: Promise<{ dropped?: string }> }) {
  const account = await signedIn('/library/kit')
  const [boards, noted, { dropped: asked }] = await Promise.all([
    boardsWithSupport(),
    benchCpus(),
    searchParams,
  ])
  const named = new Map(
    boards.flatMap((b) => new Support(b.table).cpus.map((c) => [c.cpu, c.family] as const)),
  )
  const cpus = [...named]
    .map(([cpu, family]) => {
      const is = noted.find((n) => n.cpu === cpu)
      return { cpu, family, owned: is?.owned ?? false, priceMinor: is?.priceMinor ?? null }
    })
    .sort((a, b) => a.cpu.localeCompare(b.cpu))
  const families = [...new Set(cpus.map((c) => c.family).filter(Boolean))].sort()
  const dropped = families.find((f) => f === asked) ?? null
  const toHave = cpus.flatMap(({ cpu, family, owned, priceMinor }) =>
    owned || priceMinor !== null ? [{ cpu, family, price: owned ? 0 : priceMinor! / 100 }] : [],
  )
  const kit = await heavy(account.id, 'kit', {
    boards: boards.map(({ board, table }) => ({
      board,
      table,
      mayHold: table.releases.map((r) => r.name),
    })),
    cpus: toHave,
    dropped,
  })
  return (
    <KitSheet
      boards={boards.map((b) => b.board)}
      cpus={cpus}
      families={families}
      dropped={dropped}
      kit={kit}
    />
  )
}
