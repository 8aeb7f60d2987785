import { freeOf } from '@/core/parts/stock/stock-item'
import type { AtHand } from '@/core/parts/stock/at-hand'
import { testsOf } from '@/core/triage/model/shows'
import { Button } from '@/ui/Button'
import { HeldFor } from './HeldFor'
import { shelfAction } from './shelf-actions'

/** Every test with all that it may need: codes of a board without a display are read on a card. */
const everyTest = testsOf({ 'code display': false })

/** What tests need: what was counted is there while a piece is free, the rest as somebody said last. */
export function Shelf({ atHand }: { atHand: readonly AtHand[] }) {
  const gone = atHand.filter(({ there }) => !there).length
  return (
    <>
      <h1>
        {gone === 0
          ? 'Everything the tests need is at hand'
          : `${gone} of ${atHand.length} things are not available`}
      </h1>
      <p className="mt-0.5 max-w-[52rem] text-soft">
        A test that needs what is not available is not suggested, save where a job holds it. What is counted
        below is followed by its count.
      </p>
      <ul className="mt-5 max-w-[60rem]">
        {atHand.map(({ item, there, saidAway, counted }) => {
          const tests = everyTest.filter((t) => t.needs.includes(item))
          const free = counted.reduce((sum, of) => sum + freeOf(of), 0)
          return (
            <li
              key={item}
              className="grid items-baseline gap-x-4 gap-y-1 border-b border-line py-2 sm:grid-cols-[13rem_1fr_12rem_9rem]"
            >
              <b className={`font-semibold ${there ? '' : 'text-soft'}`}>{item}</b>
              <span className="text-[0.94rem] text-soft">
                {tests.length} {tests.length === 1 ? 'test' : 'tests'}: {tests[0]?.say}
                {tests.length > 1 && '…'}
              </span>
              <span>
                <span className={there ? 'text-verd' : 'font-semibold text-brass'}>
                  {there ? '● at hand' : '○ not available'}
                </span>
                {counted.length > 0 && (
                  <span className="block text-[0.94rem] text-soft">
                    {free} free{' '}
                    {!there && !saidAway && counted.map((of) => <HeldFor key={of.item} of={of} />)}
                  </span>
                )}
              </span>
              <form action={shelfAction}>
                <input type="hidden" name="item" value={item} />
                <input type="hidden" name="there" value={saidAway ? 'yes' : 'no'} />
                {(there || saidAway) && (
                  <Button
                    type="submit"
                    look="bare"
                    aria-label={saidAway ? `${item}: available again` : `${item}: not available`}
                  >
                    {saidAway ? 'Available again' : 'Not available'}
                  </Button>
                )}
              </form>
            </li>
          )
        })}
      </ul>
    </>
  )
}
