import { notFound, redirect } from 'next/navigation'
import { jobByTag } from '@/data/jobs'
import { signedIn } from '@/server/signed-in'

export default async function JobPage({ params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params
  await signedIn(`/jobs/${tag}`)
  const job = await jobByTag(tag)
  if (!job) notFound()
  redirect(`/jobs/${job.tag}/${job.nextStep?.station ?? 'intake'}`)
}
