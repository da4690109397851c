import type { Material } from '@brelvin/contract';
import {
  ATLAS_COLUMNS,
  type EmittedOutlets,
  type FrameRenderer,
  type Lens,
  type MeshBuffers,
  type OutletAddress,
  type OutletCell,
  type Picture,
  type PictureSize,
  type MaterialPipelines,
} from '@brelvin/core';
import type { StageSurfaces } from './stage-surfaces';

/** Names the program of outlets among the materials; no document can have this id. */
export const OUTLETS = 'the outlets';

/** Which outlet is seen on the mesh, and how. */
export type LensWish = Omit<Lens, 'surface' | 'outlet'> & { readonly outlet: OutletAddress };

/** An outlet's picture in small. */
export type PreviewWish = Omit<OutletCell, 'outlet'> & { readonly outlet: OutletAddress };

/** What is known of a point of the picture. */
export interface ProbedOutlets {
  /** World space, metres. */
  readonly position: readonly number[];
  readonly copy: number;
  /** Four numbers by the outlet's key. */
  readonly values: ReadonlyMap<string, readonly number[]>;
}

/** Cells of an atlas, each with the outlet it shows. */
export interface PreviewAtlas {
  readonly pixels: Uint8ClampedArray<ArrayBuffer>;
  readonly width: number;
  readonly side: number;
  readonly places: ReadonlyMap<string, { readonly x: number; readonly y: number }>;
}

export function outletKey({ node, outlet }: OutletAddress): string {
  return `${node}.${outlet}`;
}

/** The program that gives the values of outlets, and what is looked at through it. */
export class OutletLens {
  private program?: EmittedOutlets;
  private wish?: LensWish;

  constructor(private readonly surfaces: StageSurfaces) {}

  /** Takes a program into use once it is warm; none frees the last one. */
  async show(program: EmittedOutlets | undefined, material: Material | undefined): Promise<void> {
    this.program = program;
    if (!program || !material) {
      this.surfaces.forget(OUTLETS);
      return;
    }
    this.surfaces.setMaterial(OUTLETS, material);
    await this.surfaces.show(OUTLETS, program.compiled);
  }

  /** Whether values can be read. */
  get ready(): boolean {
    return this.surface !== undefined;
  }

  follow(material: Material): void {
    if (this.program) this.surfaces.setMaterial(OUTLETS, material);
  }

  look(wish: LensWish | undefined): void {
    this.wish = wish;
  }

  /** What is seen instead of the picture. */
  get lens(): Lens | undefined {
    const { wish, surface } = this;
    const outlet = wish && this.indexOf(wish.outlet);
    return wish && surface && outlet !== undefined ? { ...wish, surface, outlet } : undefined;
  }

  /** The values of all outlets of the program at a pixel of a picture of this size. */
  async probe(
    renderer: FrameRenderer,
    pictureOf: (surface: MaterialPipelines) => Picture,
    pixel: { readonly x: number; readonly y: number },
    size: PictureSize,
    cssSize: PictureSize,
  ): Promise<ProbedOutlets | undefined> {
    const { surface, program } = this;
    if (!surface || !program) return undefined;
    const indices = program.outlets.map((_, index) => index);
    const found = await renderer.probe(pictureOf(surface), surface, indices, pixel, size, cssSize);
    if (!found) return undefined;
    const values = new Map(program.outlets.map((outlet, index) => [outletKey(outlet), found.values[index] ?? []]));
    return { position: found.position, copy: found.copy, values };
  }

  /** Least and largest value of a component on what is seen, drawn small; nothing where nothing is seen. */
  async range(
    renderer: FrameRenderer,
    pictureOf: (surface: MaterialPipelines) => Picture,
    { outlet, component }: Pick<LensWish, 'outlet' | 'component'>,
  ): Promise<{ readonly low: number; readonly high: number } | undefined> {
    const { surface } = this;
    const index = this.indexOf(outlet);
    if (!surface || index === undefined) return undefined;
    let [low, high] = [Infinity, -Infinity];
    for (const value of await renderer.spread(pictureOf(surface), surface, index, RANGE_SIZE)) {
      const number = componentOf(value, component);
      if (number === undefined || !Number.isFinite(number)) continue;
      [low, high] = [Math.min(low, number), Math.max(high, number)];
    }
    return low <= high ? { low, high } : undefined;
  }

  /** Small pictures of outlets on a mesh of their own. */
  async previews(
    renderer: FrameRenderer,
    picture: Omit<Picture, 'items'>,
    mesh: MeshBuffers,
    wishes: readonly PreviewWish[],
    side: number,
  ): Promise<PreviewAtlas | undefined> {
    const worn = this.surfaces.wornAs(OUTLETS);
    if (!this.surface || !worn) return undefined;
    const cells: OutletCell[] = [];
    const places = new Map<string, { x: number; y: number }>();
    for (const { outlet, ...wish } of wishes) {
      const index = this.indexOf(outlet);
      if (index === undefined) continue;
      places.set(outletKey(outlet), { x: (cells.length % ATLAS_COLUMNS) * side, y: Math.floor(cells.length / ATLAS_COLUMNS) * side });
      cells.push({ ...wish, outlet: index });
    }
    if (cells.length === 0) return undefined;
    const pixels = await renderer.drawOutlets(picture, { mesh, ...worn }, cells, side);
    return { pixels: new Uint8ClampedArray(pixels.buffer), width: ATLAS_COLUMNS * side, side, places };
  }

  /** The program's surface, once it is the one whose outlets are known. */
  private get surface(): MaterialPipelines | undefined {
    const worn = this.surfaces.wornAs(OUTLETS)?.surface;
    return worn && worn.key === this.program?.compiled.key ? worn : undefined;
  }

  private indexOf(wanted: OutletAddress): number | undefined {
    const found = this.program?.outlets.findIndex((each) => outletKey(each) === outletKey(wanted)) ?? -1;
    return found < 0 ? undefined : found;
  }
}

const RANGE_SIZE: PictureSize = { width: 64, height: 64 };

/** A part of a value by its number; 4 for the length. */
export function componentOf(value: readonly number[], component: number): number | undefined {
  return component === 4 ? Math.hypot(...value.slice(0, 3)) : value[component];
}
