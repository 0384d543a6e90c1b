// A worker does not inherit how the process reads TypeScript: it is told anew.
import { register } from 'tsx/esm/api'

register()
await import('./worker.ts')
