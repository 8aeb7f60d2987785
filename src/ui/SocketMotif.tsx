/** A small field of contacts with one leaning: the product's own mark. */
export function SocketMotif() {
  const dots: [number, number][] = []
  for (let y = 0; y < 17; y++)
    for (let x = 0; x < 17; x++) if (!(x > 5 && x < 11 && y > 5 && y < 11)) dots.push([x, y])
  return (
    <svg viewBox="-1 -1 18 18" className="w-2/3 max-w-md" aria-hidden="true">
      {dots.map(([x, y]) =>
        x === 12 && y === 4 ? null : <circle key={`${x} ${y}`} cx={x} cy={y} r="0.1" fill="var(--slate)" />,
      )}
      <path d="M12 4L12.5 3.5" stroke="var(--ink)" strokeWidth="0.15" strokeLinecap="round" />
      <circle cx="12.5" cy="3.5" r="0.24" fill="var(--ink)" />
      <circle cx="12.3" cy="3.7" r="1.1" fill="none" stroke="var(--brass)" strokeWidth="0.16" />
      <path d="M13.2 3.1L16.6 0.8" stroke="var(--brass)" strokeWidth="0.16" strokeLinecap="round" />
    </svg>
  )
}
