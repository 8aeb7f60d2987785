import { inferMissing } from '@/core/parts/missing/infer'
import type { MissingPart, Role } from '@/core/parts/missing/infer'
import type { Use } from '@/core/parts/substitute/substitute'
import { kindOfRef } from '@/core/parts/value/quantity'
import type { PartKind } from '@/core/parts/value/quantity'

/** What a part must be to stand in, as it is typed. */
export interface TypedWanted {
  readonly kind: PartKind
  readonly value: string
  readonly use: Use
  readonly size: string
  readonly workingV: string
  readonly amps: string
}

const useOf: Readonly<Partial<Record<Role, Use>>> = {
  series: 'series',
  'pull-up': 'pull',
  'pull-down': 'pull',
  decoupling: 'decoupling',
  bulk: 'bulk',
  bead: 'bead',
}

/** What is wanted for a part, as far as its pads say it; of one whose value is never guessed no value. */
export function wantedOf(ref: string | null, pads?: MissingPart): TypedWanted {
  const found = pads && ref !== null ? inferMissing({ ...pads, ref }) : null
  const role = found?.roles[0]?.role
  return {
    kind: found?.kind ?? (ref === null ? null : kindOfRef(ref)) ?? 'resistor',
    value: found?.value?.say ?? '',
    use: (role && useOf[role]) ?? 'other',
    size: found?.sizes.length === 1 ? found.sizes[0]! : '',
    workingV: pads?.supplyV === undefined ? '' : String(pads.supplyV),
    amps: '',
  }
}
