export { RenderPool, priorities, type Priority } from './renderPool'
export type { RenderWorker, Opened } from './renderWorker'
