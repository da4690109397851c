import type { LightRig, Material, StageSet } from '@brelvin/contract';
import {
  ComparedPictures,
  sideSize,
  StageScene,
  type CompareView,
  type EmittedMaterial,
  type Device,
  type DeviceTexture,
  type FrameRenderer,
  type PictureDifference,
  type PictureSize,
} from '@brelvin/core';
import { isOnField } from './on-field';
import type { StageSurfaces } from './stage-surfaces';

/** What differs in the second of two pictures. */
export interface OtherPicture {
  readonly material: Material;
  readonly compiled?: EmittedMaterial;
  readonly rig: LightRig;
}

/** Names the material of the second picture; no document can have this id. */
export const OTHER = 'the other picture';

/** The second of two pictures: the same set, with another material in the Bench's place or under another rig. */
export class SecondPicture {
  view: CompareView = { mode: 'beside', split: 0.5, gain: 1 };
  private wanted?: OtherPicture;
  private stands?: StageScene;
  private bench = '';
  private pair?: ComparedPictures;

  /** Present while a second picture is wanted and can be drawn. */
  get ready(): { readonly scene: StageScene; readonly rig: LightRig; readonly pair: ComparedPictures } | undefined {
    const { wanted, stands, pair } = this;
    return wanted && stands && pair && { scene: stands, rig: wanted.rig, pair };
  }

  get rig(): LightRig | undefined {
    return this.wanted?.rig;
  }

  /** Pictures beside each other. */
  get sides(): number {
    return this.wanted && this.view.mode === 'beside' ? 2 : 1;
  }

  /** The size of each picture in one of this size. */
  sizeOf(size: PictureSize): PictureSize {
    return this.wanted ? sideSize(size, this.view) : size;
  }

  /** Another second picture, or none. @returns whether its scene has yet to be built */
  want(other: OtherPicture | undefined, surfaces: StageSurfaces): boolean {
    const before = this.wanted;
    this.wanted = other;
    if (!other) {
      if (before) surfaces.forget(OTHER);
      this.stands?.destroy();
      this.stands = undefined;
      this.pair?.free();
      return false;
    }
    surfaces.setMaterial(OTHER, other.material);
    if (other.compiled && other.compiled !== before?.compiled) void surfaces.show(OTHER, other.compiled);
    return !this.stands;
  }

  /** Builds what stands in it, where one is wanted. */
  stand(device: Device, renderer: FrameRenderer, set: StageSet, bench: string, surfaces: StageSurfaces): void {
    if (!this.wanted) return;
    this.stands = new StageScene(device, renderer);
    this.bench = bench;
    this.stands.setBench(bench);
    this.stands.show(set);
    for (const id of surfaces.ids) if (!isOnField(id)) this.wear(id, surfaces.wornAs(id));
    this.pair ??= new ComparedPictures(device);
  }

  show(set: StageSet): void {
    this.stands?.show(set);
  }

  refresh(): void {
    this.stands?.refresh();
  }

  wear(id: string, worn: ReturnType<StageSurfaces['wornAs']>): void {
    if (id === OTHER) this.stands?.assign(this.bench, worn);
    else if (id !== this.bench) this.stands?.assign(id, worn);
  }

  targets(size: PictureSize): readonly DeviceTexture[] {
    return this.pair?.targets(size) ?? [];
  }

  difference(): Promise<PictureDifference | undefined> {
    return this.pair?.difference() ?? Promise.resolve(undefined);
  }

  /** The device is gone, and all that was on it. */
  lose(): void {
    this.stands = undefined;
    this.pair = undefined;
  }
}
