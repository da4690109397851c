import type { Limits } from '../ir/limits';
import type { Program } from '../ir/program';
import type { EmittedSource } from '../language';

/** A program in the text of a target. */
export interface TargetCode {
  readonly vertex: EmittedSource;
  readonly fragment: EmittedSource;
}

/** A language in which a device takes programs. */
export interface Target {
  readonly name: string;
  /** What it offers to every program. */
  readonly limits: Limits;
  /** The same program in what the target has: what it lacks is put in other words, its own conventions are met. */
  legalise(program: Program): Program;
  /** Writes a legal program. */
  emit(program: Program): TargetCode;
}

export function codeFor(target: Target, program: Program): TargetCode {
  return target.emit(target.legalise(program));
}
