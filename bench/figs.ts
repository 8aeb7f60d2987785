import { triageFigures } from './triage'
triageFigures(Number(process.argv[2]))
