import type { OpacityMode } from '@brelvin/contract';
import type { BlockLayout } from '../ir/layout';
import type { Program } from '../ir/program';
import type { Rate } from '../ir/rate';
import type { Diagnostic } from '../language';
import type { FrameComputation, SystemReads } from './link-surface';
import type { BakedInlet, ProgramImage } from './lower';
import type { GraphProblem } from './resolve';
import type { Slot } from './slots';
import type { SurfaceVariant, Variants } from './surface-programs';

/**
 * A material's programs, with all that is needed to feed them.
 *
 * @typeParam Code a program: linked, or written for a target
 */
export interface CompiledMaterial<Code = Program> extends SystemReads {
  /** Equal for materials of equal structure, whatever their numbers and for whatever target. */
  readonly key: string;
  /** What draws the surface as it is seen. */
  readonly program: Code;
  /** The same surface under shadows, and to be taken apart; only where they were asked for. */
  readonly variants: Variants<Code>;
  readonly blocks: readonly BlockLayout[];
  readonly slots: readonly Slot[];
  readonly frame: FrameComputation;
  /** Whether it moves vertices. */
  readonly shaped: boolean;
  /** How it is seen through; nothing where it hides what is behind it. */
  readonly opacity?: OpacityMode;
  /** Whether the picture changes with the clock. */
  readonly moves: boolean;
  readonly baked: readonly BakedInlet[];
  /** Samplers of the program, each with the material's image it shows. */
  readonly images: readonly ProgramImage[];
}

export interface CompileResult<Code = Program> {
  /** Absent when there are problems. */
  readonly compiled?: CompiledMaterial<Code>;
  readonly problems: readonly GraphProblem[];
  /** Of a code material: all that is to be said of its text. */
  readonly diagnostics?: readonly Diagnostic[];
  /** Of a code material: which texts that is said of. */
  readonly codeKey?: string;
  /** How often each node that reaches the dock is computed. */
  readonly rates: Readonly<Record<string, Rate>>;
}

/** What wears a material: a mesh, or a part of a field. */
export type WornBy = 'mesh' | 'field';

export interface CompileOptions {
  /** Which programs are wanted besides the plain one. */
  readonly variants?: readonly SurfaceVariant[];
  /** A mesh when absent. A field's parts are not moved by a shape, and hide what is behind them. */
  readonly wornBy?: WornBy;
}
