export { Waiting as default } from '@/ui/Waiting'
