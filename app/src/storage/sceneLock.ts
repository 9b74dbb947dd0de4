import { UserProblem } from '@welkinar/core'
import { isKept } from './database'

// One tab writes a scene. The browser gives its lock to one of them, and takes it back when the tab is closed or dies.

interface SceneMessage {
  readonly kind: 'saved' | 'hand over'
  readonly id: string
}

function channel(): BroadcastChannel {
  return new BroadcastChannel('welkinar scenes')
}

const lockName = (id: string): string => `welkinar scene ${id}`

/** How long a tab may take to hand a scene over. */
const PATIENCE_MS = 3000
/** How long a tab that is closed may keep what it had. */
const CLOSING_MS = 400

/** Where nothing is kept there is no other tab that could write it. */
async function requestLock<T>(name: string, options: LockOptions, work: (lock: object | null) => T | Promise<T>): Promise<T> {
  return isKept ? navigator.locks.request(name, options, work) : work({})
}

/** Tells the other tabs that a scene was saved. */
export function announceSaved(id: string): void {
  const open = channel()
  open.postMessage({ kind: 'saved', id } satisfies SceneMessage)
  open.close()
}

/** Calls `changed` whenever another tab has saved the scene. Returns how to stop. */
export function onSavedElsewhere(id: string, changed: () => void): () => void {
  const open = channel()
  open.onmessage = ({ data }: MessageEvent<SceneMessage>) => {
    if (data.kind === 'saved' && data.id === id) changed()
  }
  return () => open.close()
}

interface LockUser {
  /** The scene may be written from now on. */
  onHeld(): void
  /** Another tab wants to go on: saves what is not saved yet. */
  onAsked(): Promise<unknown>
  /** The scene may no longer be written. */
  onLost(): void
}

/** The right to write one scene, wanted for as long as it is open. */
export class SceneLock {
  private letGo: (() => void) | undefined
  private readonly messages = channel()
  private closed = false

  constructor(
    private readonly id: string,
    private readonly user: LockUser,
  ) {
    this.messages.onmessage = ({ data }: MessageEvent<SceneMessage>) => {
      if (data.kind === 'hand over' && data.id === id && this.letGo) void this.handOver()
    }
  }

  /** Takes the lock if no other tab has it, or one that is just being closed lets it go. Resolves with whether it is held. */
  take(): Promise<boolean> {
    return this.request({ signal: AbortSignal.timeout(CLOSING_MS) }).catch(() => false)
  }

  /** Asks the tab that has it to save and to hand it over; one that does not answer loses it. */
  async takeOver(): Promise<void> {
    // By its own channel, which does not hear itself.
    this.messages.postMessage({ kind: 'hand over', id: this.id } satisfies SceneMessage)
    const patience = AbortSignal.timeout(PATIENCE_MS)
    const handed = await this.request({ signal: patience }).catch(() => false)
    if (!handed && !this.closed) await this.request({ steal: true })
  }

  close(): void {
    this.closed = true
    this.messages.close()
    this.letGo?.()
    this.letGo = undefined
  }

  private async handOver(): Promise<void> {
    await this.user.onAsked().catch(() => undefined)
    this.letGo?.()
    this.letGo = undefined
    if (!this.closed) this.user.onLost()
  }

  /** Resolves when the lock is held, or not to be had. */
  private request(options: LockOptions): Promise<boolean> {
    return new Promise((resolve, reject) => {
      requestLock(lockName(this.id), options, (lock) => {
        if (!lock || this.closed) return resolve(false)
        const held = new Promise<void>((release) => {
          this.letGo = release
        })
        this.user.onHeld()
        resolve(true)
        return held
      }).catch((error: unknown) => {
        // Taken by another tab, or never held.
        if (this.letGo) {
          this.letGo = undefined
          this.user.onLost()
        }
        reject(error instanceof Error ? error : new Error(String(error)))
      })
    })
  }
}

/** Does something to a scene that no tab has open. @throws UserProblem if one has */
export async function withSceneLock<T>(id: string, work: () => Promise<T>): Promise<T> {
  return requestLock(lockName(id), { ifAvailable: true }, (lock) => {
    if (!lock) throw new UserProblem('This scene is open in another tab; close it there first.')
    return work()
  })
}

/** Does something that one tab does at a time. Returns whether this is the one; then it is done. */
export async function whileAlone(name: string, work: () => Promise<void>): Promise<boolean> {
  return requestLock(`welkinar ${name}`, { ifAvailable: true }, async (lock) => {
    if (!lock) return false
    await work()
    return true
  })
}
