// Where a worker thread begins: it learns to read TypeScript, then takes its work from heavy-worker.ts.
import { register } from 'tsx/esm/api'

register()
export default (await import('./heavy-worker.ts')).default
