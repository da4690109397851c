import type { LightRig, Material, OrbitCamera, StageSet } from '@brelvin/contract';
import {
  buildMesh,
  FrameRenderer,
  StageScene,
  type Device,
  type EmittedMaterial,
  type Inspection,
  type Lens,
  type LitProgram,
  type MeshBuffers,
  type Picture,
  type PictureSize,
  type StageClocks,
  type MaterialPipelines,
} from '@brelvin/core';
import { stillOf, thumbnailOf, type StillWish } from './kept-pictures';
import { gauge, type FrameCost } from './program-gauge';
import { connectLoaders, type LoadingWatch, type StageLoaders } from './stage-loaders';
import { PREVIEW_MESH, WARM_UP_MESH } from './stage-meshes';

/** What stands on the Stage, and under which light. */
export interface Standing {
  readonly set: StageSet;
  readonly rig: LightRig;
  /** The material on the Bench. */
  readonly bench: string;
}

/** How it is looked at. */
export interface Sight {
  readonly camera: OrbitCamera;
  readonly clocks: StageClocks;
  readonly inspection: Inspection;
  /** The value of an outlet instead of the picture. */
  readonly lens?: Lens;
}

/** What is on the Stage, for those who measure it. */
export interface Measured {
  readonly session: StageSession;
  readonly set: StageSet;
  readonly picture: () => Picture;
  readonly size: PictureSize;
  readonly cssSize: PictureSize;
}

/** All that the Stage has on one device, from its start until it is lost. */
export class StageSession {
  readonly renderer: FrameRenderer;
  readonly scene: StageScene;
  rig: LightRig;
  private readonly warmUpMesh: MeshBuffers;
  private madePreviewMesh?: MeshBuffers;

  constructor(
    readonly device: Device,
    { set, rig, bench }: Standing,
    loaders: StageLoaders,
    watch: LoadingWatch,
  ) {
    const renderer = (this.renderer = new FrameRenderer(device));
    connectLoaders(renderer, loaders, watch);
    this.rig = rig;
    this.warmUpMesh = renderer.uploadMesh(buildMesh(WARM_UP_MESH));
    this.scene = new StageScene(device, renderer);
    this.scene.setBench(bench);
    this.scene.show(set);
  }

  /** A sphere for small pictures. */
  get previewMesh(): MeshBuffers {
    return (this.madePreviewMesh ??= this.renderer.uploadMesh(buildMesh(PREVIEW_MESH)));
  }

  /** @param program of outlets, that what wears the material on the Bench wears instead */
  picture(sight: Sight, program?: MaterialPipelines): Picture {
    return pictureOf(this.scene, this.rig, sight, program);
  }

  /** Brings a program onto the device. @throws ProgramRefused */
  prepare(compiled: EmittedMaterial, { camera, clocks }: Sight, material: Material, lit: Iterable<LitProgram>): Promise<MaterialPipelines> {
    return this.renderer.prepare(compiled, { camera, rig: this.rig, ...clocks }, this.warmUpMesh, material, lit);
  }

  /** How long a whole picture takes; see `gauge`. */
  gauge(picture: () => Picture, size: PictureSize): Promise<FrameCost> {
    return gauge(this.device, this.renderer, picture, size);
  }

  still(picture: Picture, wish: StillWish, cssSize: PictureSize): Promise<Blob | undefined> {
    return stillOf(this.device, this.renderer, picture, wish, cssSize);
  }

  thumbnail(clocks: StageClocks, whole: boolean): Promise<Blob> {
    return thumbnailOf(this.device, this.renderer, this.scene, { rig: this.rig, ...clocks }, whole);
  }
}

/** A picture of what stands in a scene. @param program in the place of the material on the Bench */
export function pictureOf(
  scene: StageScene,
  rig: LightRig,
  { camera, clocks, inspection, lens }: Sight,
  program?: MaterialPipelines,
): Picture {
  const looked = program ? undefined : lens;
  return {
    lens: looked,
    items: scene.items(clocks.seconds, program ?? looked?.surface),
    camera,
    rig,
    ...clocks,
    casters: scene.casters(clocks.seconds),
    inspection,
  };
}
