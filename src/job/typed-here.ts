/** What was typed and stays in this browser under a key; nothing where there is none, or it cannot be read. */
export function typedHere<Typed>(key: string): Partial<Typed> {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<Typed>
  } catch {
    return {}
  }
}
