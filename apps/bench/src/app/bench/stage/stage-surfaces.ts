import type { Material } from '@brelvin/contract';
import {
  type AssignedMaterial,
  DeviceLost,
  originOfLine,
  ProgramRefused,
  type EmittedMaterial,
  type ImageLack,
  type LitProgram,
  type MaterialPipelines,
} from '@brelvin/core';

import { onField } from './on-field';

/** Programs of one material that are kept although it has another one now. */
const MOST_SPARE = 3;

/** The graphics driver's refusal, with the node it seems to be about. */
export interface Refusal {
  readonly message: string;
  readonly node?: string;
}

interface Hooks {
  /** Whether it is in the language of what draws; one that is not belongs to a device that is gone, or to come. */
  readonly fits: (compiled: EmittedMaterial) => boolean;
  /** Brings a program onto the device; nothing while there is none. */
  readonly prepare: (
    id: string,
    compiled: EmittedMaterial,
    material: Material,
    lit: ReadonlySet<LitProgram>,
  ) => Promise<MaterialPipelines> | undefined;
  /** A program is on its way. */
  readonly begun: () => void;
  /** A material is worn differently from now on. */
  readonly worn: (id: string) => void;
  readonly refused: (id: string, refusal: Refusal | undefined) => void;
}

/**
 * The materials on the Stage, their programs, and those programs on the device, by the material's id. A program takes
 * the old one's place only when it is ready. Materials and programs outlive a lost context, surfaces do not.
 */
export class StageSurfaces {
  private readonly materials = new Map<string, Material>();
  private readonly programs = new Map<string, EmittedMaterial>();
  private readonly surfaces = new Map<string, MaterialPipelines>();
  private readonly turns = new Map<string, number>();
  /** Programs that a material had before, the last one first: going back to one compiles nothing. */
  private readonly spare = new Map<string, MaterialPipelines[]>();

  /** Which programs pictures need, of those that draw a surface lit. */
  private lit: ReadonlySet<LitProgram> = new Set();
  /** Programs on their way to the device. */
  private readonly preparing = new Set<symbol>();

  constructor(private readonly hooks: Hooks) {}

  /** Whether a program is on its way to the device. */
  get prepares(): boolean {
    return this.preparing.size > 0;
  }

  get ids(): Iterable<string> {
    return this.materials.keys();
  }

  /** What of images that could not be had is shown by a material on the Stage: one that was replaced is missed no longer. */
  missed(lacks: readonly ImageLack[]): readonly ImageLack[] {
    const shown = new Set([...this.materials.values()].flatMap(({ images }) => Object.values(images).map(({ asset }) => asset)));
    return lacks.filter(({ asset }) => shown.has(asset));
  }

  /** Whether a program of it is on the device. */
  has(id: string): boolean {
    return this.surfaces.has(id);
  }

  wornAs(id: string): (AssignedMaterial & { readonly material: Material }) | undefined {
    const material = this.materials.get(id);
    return material && { material, surface: this.surfaces.get(id), onField: this.surfaces.get(onField(id)) };
  }

  setMaterial(id: string, material: Material): void {
    this.materials.set(id, material);
    this.hooks.worn(id);
  }

  /** Takes a material off the Stage. @param programs of it: whether they stay on the device for when it comes back */
  forget(id: string, programs: 'go' | 'stay' = 'go'): void {
    this.materials.delete(id);
    if (programs === 'go') {
      this.interrupt(id);
      this.surfaces.get(id)?.destroy();
      for (const each of this.spare.get(id) ?? []) each.destroy();
      for (const map of [this.surfaces, this.programs, this.spare]) map.delete(id);
    }
    this.hooks.worn(id);
  }

  /** Takes a new program into use once it is warm. */
  async show(id: string, compiled: EmittedMaterial): Promise<void> {
    if (!this.hooks.fits(compiled)) return;
    const turn = this.interrupt(id);
    this.programs.set(id, compiled);
    const known = this.surfaces.get(id);
    if (known?.key === compiled.key) {
      // The same program, but its numbers may come from elsewhere in the document.
      known.adopt(compiled);
      this.hooks.worn(id);
      this.hooks.refused(id, undefined);
      await this.complete(id, known, compiled);
      return;
    }
    const before = this.takeSpare(id, compiled.key);
    if (before) {
      if (known) this.putAside(id, known);
      this.surfaces.set(id, before);
      await this.show(id, compiled);
      return;
    }
    const material = this.materials.get(id);
    const prepared = material && this.hooks.prepare(id, compiled, material, this.lit);
    if (!prepared) return;
    try {
      const next = await this.underway(prepared);
      if (turn !== this.turns.get(id)) {
        next.destroy();
        this.hooks.worn(id);
        return;
      }
      this.surfaces.set(id, next);
      this.hooks.worn(id);
      if (known) this.putAside(id, known);
      this.hooks.refused(id, undefined);
      // The light may have changed meanwhile.
      await this.complete(id, next, compiled);
    } catch (error) {
      this.refuse(id, error, compiled);
    }
  }

  /** Pictures stand in another light from now on; until the programs for it are there, others stand in for them. */
  async light(lit: ReadonlySet<LitProgram>): Promise<void> {
    if (lit.size === this.lit.size && [...lit].every((each) => this.lit.has(each))) return;
    this.lit = lit;
    await Promise.all([...this.surfaces].map(([id, surface]) => this.complete(id, surface, surface.compiled)));
  }

  /** Programs of another light, for outlines, or to be taken apart, that it does not have yet. */
  private async complete(id: string, surface: MaterialPipelines, compiled: EmittedMaterial): Promise<void> {
    if (!surface.lacks(compiled, this.lit)) return;
    try {
      await this.underway(surface.learn(compiled, this.lit));
      this.hooks.worn(id);
    } catch (error) {
      this.refuse(id, error, compiled);
    }
  }

  private refuse(id: string, error: unknown, compiled: EmittedMaterial): void {
    if (error instanceof DeviceLost) return;
    if (!(error instanceof ProgramRefused)) throw error;
    console.error(error.message, error.log);
    this.hooks.refused(id, refusalOf(error, compiled));
  }

  private async underway<T>(work: Promise<T>): Promise<T> {
    const way = Symbol();
    this.preparing.add(way);
    this.hooks.begun();
    try {
      return await work;
    } finally {
      this.preparing.delete(way);
    }
  }

  /** Brings everything that is known onto a new device. */
  async showAll(): Promise<void> {
    await Promise.all([...this.programs].map(([id, compiled]) => this.show(id, compiled)));
  }

  /** Programs on their way come too late for a device that is gone. */
  interruptAll(): void {
    for (const id of this.turns.keys()) this.interrupt(id);
  }

  private takeSpare(id: string, key: string): MaterialPipelines | undefined {
    const list = this.spare.get(id) ?? [];
    const found = list.find((each) => each.key === key);
    if (found)
      this.spare.set(
        id,
        list.filter((each) => each !== found),
      );
    return found;
  }

  private putAside(id: string, surface: MaterialPipelines): void {
    const [...list] = [surface, ...(this.spare.get(id) ?? [])];
    for (const each of list.splice(MOST_SPARE)) each.destroy();
    this.spare.set(id, list);
  }

  /** The device is gone, and all that was on it. */
  lose(): void {
    this.preparing.clear();
    this.surfaces.clear();
    this.spare.clear();
  }

  private interrupt(id: string): number {
    const turn = (this.turns.get(id) ?? 0) + 1;
    this.turns.set(id, turn);
    return turn;
  }
}

function refusalOf(error: ProgramRefused, compiled: EmittedMaterial): Refusal {
  const source = error.stage === 'link' ? undefined : compiled.program[error.stage];
  const origin = source && error.line !== undefined ? originOfLine(source, error.line) : undefined;
  return { message: `${error.message} This is a defect in Brelvin, not in your material.`, node: origin?.path };
}
