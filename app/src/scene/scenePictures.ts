import { picturesOfScene, type PictureReference, type Scene } from '@welkinar/core'
import { leasePhoto, type PhotoLease } from '../engine/photos'

/**
 * The photo of the open scene and every picture that it has read since it was opened, held in the threads: a picture that is no longer read may come
 * back by an undo.
 */
export class ScenePictures {
  private readonly leases = new Map<string, PhotoLease>()

  /** Holds what a scene reads. Returns the pictures that cannot be read any more. @throws UserProblem if it is the photo */
  async hold(scene: Scene): Promise<string[]> {
    const [gone] = await Promise.all([this.holdPictures(picturesOfScene(scene)), this.take(scene.photo).opened])
    return gone
  }

  /** Holds pictures; returns the ids of those that cannot be read. */
  async holdPictures(pictures: readonly PictureReference[]): Promise<string[]> {
    const isGone = await Promise.all(
      pictures.map((picture) =>
        this.take(picture).opened.then(
          () => false,
          () => {
            this.leases.get(picture.id)?.release()
            this.leases.delete(picture.id)
            return true
          },
        ),
      ),
    )
    return pictures.filter((_, i) => isGone[i]).map(({ id }) => id)
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

  private take(picture: PictureReference): PhotoLease {
    const known = this.leases.get(picture.id)
    if (known) return known
    const taken = leasePhoto(picture)
    this.leases.set(picture.id, taken)
    return taken
  }
}
