export { RenderPool, priorities, type Priority } from './renderPool'
export type { RenderWorker, Opened } from './renderWorker'
export type { MeasuredLight } from '../measure/places'
