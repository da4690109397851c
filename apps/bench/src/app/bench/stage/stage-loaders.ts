import type { FrameRenderer } from '@brelvin/core';

/** Where the Stage gets the pixels of files from. */
export interface StageLoaders {
  readonly image: FrameRenderer['images']['load'];
  readonly environment: FrameRenderer['environments']['load'];
  readonly mesh: FrameRenderer['meshes']['load'];
  /** Where it fails, it is worked out on the spot. */
  readonly meshWork: NonNullable<FrameRenderer['meshes']['workApart']>;
}

export const NO_LOADERS: StageLoaders = {
  image: async () => undefined,
  environment: async () => undefined,
  mesh: async () => undefined,
  meshWork: () => Promise.reject(new Error('There is no other place.')),
};

/** What comes of loading. */
export interface LoadingWatch {
  /** Something came that the picture shows. */
  readonly arrived: () => void;
  /** What could not be had is something else than before. */
  readonly lacked: () => void;
  /** A mesh came that the set shows. */
  readonly meshArrived: () => void;
  /** The part of an environment's filtering that is done, 0…1. */
  readonly filtered: (share: number) => void;
  /** Comes back when the device is not wanted for itself: a program that is gauged meanwhile would seem slow. */
  readonly idle: () => Promise<void>;
}

export function connectLoaders({ images, environments, meshes }: FrameRenderer, loaders: StageLoaders, watch: LoadingWatch): void {
  images.load = loaders.image;
  images.onArrival = watch.arrived;
  images.onLack = watch.lacked;
  meshes.load = loaders.mesh;
  meshes.workApart = loaders.meshWork;
  meshes.onArrival = watch.meshArrived;
  environments.load = loaders.environment;
  environments.onArrival = watch.arrived;
  environments.onProgress = watch.filtered;
  images.later = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
  // The page answers between two pieces of work.
  images.next = environments.next = async () => {
    await watch.idle();
    await new Promise((resolve) => setTimeout(resolve));
  };
}
