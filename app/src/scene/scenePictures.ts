import { picturesOfScene, type Scene } from '@welkinar/core'
import { leasePhoto, type PhotoLease } from '../engine/photos'

/**
 * The photo of the open scene and every picture that it has read since it was opened, held in the threads: a picture that is no longer read may come
 * back by an undo.
 */
export class ScenePictures {
  private readonly leases = new Map<string, PhotoLease>()

  /** Holds what a scene reads. Returns the pictures that cannot be read any more. @throws UserProblem if it is the photo */
  async hold(scene: Scene): Promise<string[]> {
    const [gone] = await Promise.all([this.holdPictures(picturesOfScene(scene)), this.take(scene.photo.id).opened])
    return gone
  }

  /** Holds pictures; returns those that cannot be read. */
  async holdPictures(ids: readonly string[]): Promise<string[]> {
    const isGone = await Promise.all(
      ids.map((id) =>
        this.take(id).opened.then(
          () => false,
          () => {
            this.leases.get(id)?.release()
            this.leases.delete(id)
            return true
          },
        ),
      ),
    )
    return ids.filter((_, i) => isGone[i])
  }

  /** Keeps a picture that somebody else has opened. */
  keep(id: string, lease: PhotoLease): void {
    if (this.leases.has(id)) lease.release()
    else this.leases.set(id, lease)
  }

  release(): void {
    for (const lease of this.leases.values()) lease.release()
    this.leases.clear()
  }

  private take(id: string): PhotoLease {
    const known = this.leases.get(id)
    if (known) return known
    const taken = leasePhoto(id)
    this.leases.set(id, taken)
    return taken
  }
}
