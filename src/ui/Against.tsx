/** What speaks against something that is about to be written. */
export function Against({ what, against }: { what: string; against: readonly string[] }) {
  return (
    <div role="alert" className="border-l-4 border-ember pl-3">
      <p className="font-semibold text-ember">What speaks against {what}:</p>
      <ul>
        {against.slice(0, 6).map((text) => (
          <li key={text}>{text}</li>
        ))}
        {against.length > 6 && <li>and {against.length - 6} more</li>}
      </ul>
    </div>
  )
}
