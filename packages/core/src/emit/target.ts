import { layoutOf, type ProgramLayout } from './bindings';
import type { Limits } from '../ir/limits';
import type { Program } from '../ir/program';
import type { EmittedSource } from '../language';

/** Both stages in the text of a target. */
export interface StageTexts {
  readonly vertex: EmittedSource;
  readonly fragment: EmittedSource;
}

/** Languages that are written. */
export const TARGET_NAMES = ['glsl', 'wgsl'] as const;
export type TargetName = (typeof TARGET_NAMES)[number];

/** A program in the text of a target, and what is bound to it. */
export interface TargetCode extends StageTexts {
  readonly target: TargetName;
  readonly layout: ProgramLayout;
  /** What each vertex brings, by name; where the text numbers them, in this order. */
  readonly attributes: readonly string[];
}

/** A language in which a device takes programs. */
export interface Target {
  readonly name: TargetName;
  /** What it offers to every program. */
  readonly limits: Limits;
  /** The same program in what the target has: what it lacks is put in other words, its own conventions are met. */
  legalise(program: Program): Program;
  /** Writes a legal program, whose resources are bound as a layout says. */
  emit(program: Program, layout: ProgramLayout): StageTexts;
}

export function codeFor(target: Target, program: Program): TargetCode {
  const legal = target.legalise(program);
  const layout = layoutOf(legal);
  return { target: target.name, ...target.emit(legal, layout), layout, attributes: legal.vertex.inputs.map(({ name }) => name) };
}
