import { shelfItems } from '@/core/triage/model/bench-test'
import type { ShelfItem } from '@/core/triage/model/bench-test'
import { testsOf } from '@/core/triage/model/shows'
import { Button } from '@/ui/Button'
import { shelfAction } from './shelf-actions'

/** Every test with all that it may need: codes of a board without a display are read on a card. */
const everyTest = testsOf({ 'code display': false })

/** What triage's tests need: what is away is not suggested. */
export function Shelf({ atHand }: { atHand: readonly ShelfItem[] }) {
  return (
    <>
      <h1>
        {atHand.length === shelfItems.length
          ? 'Everything the tests need is at hand'
          : `${shelfItems.length - atHand.length} of ${shelfItems.length} things are not available`}
      </h1>
      <p className="mt-0.5 text-soft">
        A test that needs what is not available is not suggested, on any job.
      </p>
      <ul className="mt-5 max-w-[52rem]">
        {shelfItems.map((item) => {
          const there = atHand.includes(item)
          const tests = everyTest.filter((t) => t.needs.includes(item))
          return (
            <li
              key={item}
              className="grid items-baseline gap-x-4 gap-y-1 sm:grid-cols-[13rem_1fr_8.5rem_auto] border-b border-line py-2"
            >
              <b className={`font-semibold ${there ? '' : 'text-soft'}`}>{item}</b>
              <span className="text-[0.94rem] text-soft">
                {tests.length} {tests.length === 1 ? 'test' : 'tests'}: {tests[0]?.say}
                {tests.length > 1 && '…'}
              </span>
              <span className={there ? 'text-verd' : 'font-semibold text-brass'}>
                {there ? '● at hand' : '○ not available'}
              </span>
              <form action={shelfAction}>
                <input type="hidden" name="item" value={item} />
                <input type="hidden" name="there" value={there ? 'no' : 'yes'} />
                <Button
                  type="submit"
                  look="bare"
                  aria-label={there ? `${item}: not available` : `${item}: available again`}
                >
                  {there ? 'Not available' : 'Available again'}
                </Button>
              </form>
            </li>
          )
        })}
      </ul>
    </>
  )
}
