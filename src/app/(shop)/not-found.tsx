export { NothingHere as default } from '@/ui/NothingHere'
