/**
 * Does the newest of what is asked, one at a time: what is asked meanwhile waits, and gives way to what is asked after it.
 * One that fails does not keep the next from being done.
 */
export function latestOnly<Asked>(work: (asked: Asked) => Promise<void>): (asked: Asked) => void {
  let waiting: { readonly asked: Asked } | null = null
  let busy = false
  async function run() {
    busy = true
    while (waiting) {
      const { asked }: { readonly asked: Asked } = waiting
      waiting = null
      await work(asked).catch(() => undefined)
    }
    // In the turn of the last look: what was asked in between would wait for ever.
    busy = false
  }
  return (asked) => {
    waiting = { asked }
    if (!busy) void run()
  }
}
