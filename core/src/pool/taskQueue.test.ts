import { describe, expect, it } from 'vitest'
import { TaskQueue } from './taskQueue'

/** Work that ends when it is told to. */
function pending<T>(value: T): { work: () => Promise<T>; end(): void } {
  let end = (): void => undefined
  const promise = new Promise<T>((resolve) => {
    end = () => resolve(value)
  })
  return { work: () => promise, end }
}

describe('task queue', () => {
  it('runs the most urgent first, among equals the oldest', async () => {
    const queue = new TaskQueue(['one'])
    const order: string[] = []
    const first = pending(undefined)
    const task = (name: string, priority: number) => queue.run(priority, () => Promise.resolve(void order.push(name)))
    const all = [queue.run(5, first.work), task('late', 3), task('urgent', 0), task('later', 3)]
    first.end()
    await Promise.all(all)
    expect(order).toEqual(['urgent', 'late', 'later'])
  })

  it('keeps a task of a lane for its worker', async () => {
    const queue = new TaskQueue(['left', 'right'])
    const seen = await Promise.all([0, 1, 1, 0, 1].map((lane) => queue.run(0, (worker) => Promise.resolve(worker), { lane })))
    expect(seen).toEqual(['left', 'right', 'right', 'left', 'right'])
  })

  it('never starts what was aborted while it waited, and goes on with the rest', async () => {
    const queue = new TaskQueue(['one'])
    const first = pending(undefined)
    const running = queue.run(0, first.work)
    const abort = new AbortController()
    let started = false
    const doomed = queue.run(0, () => Promise.resolve(void (started = true)), { signal: abort.signal })
    abort.abort()
    await expect(doomed).rejects.toThrow()
    first.end()
    await running
    expect(await queue.run(0, () => Promise.resolve('next'))).toBe('next')
    expect(started).toBe(false)
  })

  it('goes on after a task that fails', async () => {
    const queue = new TaskQueue(['one'])
    await expect(queue.run(0, () => Promise.reject(new Error('no')))).rejects.toThrow('no')
    expect(await queue.run(0, () => Promise.resolve(7))).toBe(7)
  })
})
