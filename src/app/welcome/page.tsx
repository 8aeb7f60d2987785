import { redirect } from 'next/navigation'
import { FirstLeadForm } from '@/shop/FirstLeadForm'
import { shopIsEmpty } from '@/shop/sign-in-actions'

export default async function Welcome() {
  if (!(await shopIsEmpty())) redirect('/sign-in')
  return (
    <main className="mx-auto mt-[12vh] max-w-md p-6">
      <h1 className="text-2xl">An empty bench.</h1>
      <p className="mt-2 mb-6 text-soft">
        The first account is the lead’s: the lead adds the technicians, promises times and answers for the
        owners’ property.
      </p>
      <FirstLeadForm />
    </main>
  )
}
