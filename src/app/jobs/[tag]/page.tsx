import { notFound, redirect } from 'next/navigation'
import { jobByTag } from '@/data/jobs'

export default async function JobPage({ params }: { params: Promise<{ tag: string }> }) {
  const { tag } = await params
  const job = await jobByTag(tag)
  if (!job) notFound()
  redirect(`/jobs/${job.tag}/${job.bench.station}`)
}
