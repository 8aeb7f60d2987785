import { headers } from 'next/headers'
import type { ReactNode } from 'react'
import { signedIn } from '@/server/signed-in'
import { ShopFrame } from '@/shop/ShopFrame'

export default async function ShopLayout({ children }: { children: ReactNode }) {
  const account = await signedIn((await headers()).get('x-needle-path') ?? '/')
  return <ShopFrame account={account}>{children}</ShopFrame>
}
