import { expose } from 'comlink'
import { planRoute } from '@/core/firmware/route/plan-route'

const api = { plan: planRoute }
export type RouteWorker = typeof api
expose(api)
