import { computed, inject, Injectable } from '@angular/core';
import { EnvironmentShelf } from '../../shared/images/environment-shelf';
import { ImageShelf } from '../../shared/images/image-shelf';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import type { StageLoaders } from './stage-loaders';

/** Where the Stage's files come from, and what of them comes in just now. */
@Injectable()
export class StageFiles {
  private readonly images = inject(ImageShelf);
  private readonly environments = inject(EnvironmentShelf);
  private readonly meshes = inject(MeshShelf);

  readonly jobs = computed(() => {
    const mesh = this.meshes.job();
    return [...this.images.jobs(), ...(mesh ? [mesh] : [])];
  });

  readonly loaders: StageLoaders = {
    image: (image) => this.images.load(image),
    environment: (assets) => this.environments.load(assets),
    mesh: (asset) => this.meshes.load(asset),
  };
}
