import { redirect } from 'next/navigation'
import { localPath } from '@/server/signed-in'
import { SignInForm } from '@/shop/SignInForm'
import { shopIsEmpty } from '@/shop/sign-in-actions'
import { SocketMotif } from '@/ui/SocketMotif'

export default async function SignIn({ searchParams }: { searchParams: Promise<{ back?: string }> }) {
  if (await shopIsEmpty()) redirect('/welcome')
  const { back } = await searchParams
  return (
    <main className="grid min-h-screen grid-cols-1 md:grid-cols-[1fr_minmax(24rem,32rem)]">
      <div className="hidden items-center justify-center border-r border-line md:flex">
        <SocketMotif />
      </div>
      <div className="flex flex-col justify-center bg-sheet p-10">
        <h1 className="text-3xl">Arch Needle</h1>
        <p className="mt-1 mb-8 max-w-md text-soft">
          For the technician who restores motherboards that will not POST: what to test next, whether it may
          be powered, which bent contact to straighten first, and what proves the repair.
        </p>
        <SignInForm back={localPath(back)} demo={process.env.DEMO_SIGN_IN === '1'} />
      </div>
    </main>
  )
}
