import type { InkedPath } from '@/core/socket/map/display-list'
import { inkColours, inkStyle } from '@/core/socket/map/svg'

/** A display list as SVG paths, for drawings that are not the map itself. */
export function FieldPaths({
  paths,
  pitchMm,
  theme,
}: {
  paths: readonly InkedPath[]
  pitchMm: number
  theme: 'paper' | 'scope'
}) {
  return paths.map(({ ink, d }) => {
    const { fill, width, dash } = inkStyle[ink]
    const colour = inkColours[theme][ink]
    return fill ? (
      <path key={ink} d={d} fill={colour} />
    ) : (
      <path
        key={ink}
        d={d}
        fill="none"
        stroke={colour}
        strokeWidth={width * pitchMm}
        strokeLinecap="round"
        strokeDasharray={dash?.map((v) => v * pitchMm).join(' ')}
      />
    )
  })
}
