import { computed, inject, Injectable } from '@angular/core';
import { EnvironmentShelf } from '../../shared/images/environment-shelf';
import { ImageShelf, type ImageJob } from '../../shared/images/image-shelf';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import { MapSetEditor } from '../maps/map-set-editor';
import type { StageLoaders } from './stage-loaders';

/** Where the Stage's files come from, and what of them comes in just now. */
@Injectable()
export class StageFiles {
  private readonly images = inject(ImageShelf);
  private readonly environments = inject(EnvironmentShelf);
  private readonly meshes = inject(MeshShelf);
  private readonly sets = inject(MapSetEditor);

  /** What is under way; of a set of maps how far it is as a whole. */
  readonly jobs = computed((): readonly ImageJob[] => {
    const [images, mesh, set] = [this.images.jobs(), this.meshes.job(), this.sets.reading()];
    return [...(set ? [this.ofSet(set, images[0])] : images), ...(mesh ? [mesh] : [])];
  });

  readonly loaders: StageLoaders = {
    image: (image) => this.images.load(image),
    environment: (assets) => this.environments.load(assets),
    mesh: (asset) => this.meshes.load(asset),
    meshWork: (asset, work) => this.meshes.workOut(asset, work),
  };

  private ofSet({ done, of }: { readonly done: number; readonly of: number }, job?: ImageJob): ImageJob {
    const cancel = (): void => this.sets.stop();
    if (!job) return { id: 0, name: `${of} files`, doing: 'reading', share: done / of, cancel };
    return { ...job, name: `${job.name}, ${done + 1} of ${of}`, share: (done + job.share) / of, cancel };
  }
}
