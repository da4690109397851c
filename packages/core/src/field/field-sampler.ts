import { compileFunction, type CompiledFunction } from '../ir/compiled/compiled-function';
import { evaluate, evaluateCall, type EvaluationContext } from '../ir/evaluate';
import { components, type Value } from '../ir/value';
import type { FieldProgram } from './read-field';

/** A field's value at a point: metres, below 0 inside, and the number of the part. */
export interface FieldSample {
  readonly distance: number;
  readonly part: number;
}

const CORNERS = [
  [1, -1, -1],
  [-1, 1, -1],
  [-1, -1, 1],
  [1, 1, 1],
] as const;

/** Asks a field on the CPU: as machine code, or by the evaluator where it is too large for that. */
export class FieldSampler {
  private readonly context: EvaluationContext;
  private readonly compiled: CompiledFunction | undefined;

  /** @param seconds of the Stage's clock */
  constructor(
    private readonly program: FieldProgram,
    seconds = 0,
  ) {
    const { functions, globals } = program.module;
    const known = new Map<string, Value>([['frameTime', [seconds]]]);
    for (const { name, storage, value } of globals.values())
      if (storage === 'const' && value) known.set(name, evaluate(value, { functions, globals: known }));
    this.context = { functions, globals: known };
    this.compiled = compileFunction(
      program.fieldAt,
      this.context,
      [...globals.values()].filter(({ storage }) => storage === 'private'),
    );
  }

  /** Whether it takes microseconds to ask. */
  get isQuick(): boolean {
    return this.compiled !== undefined;
  }

  /** Not a number where the field cannot be computed: it reads what only a picture has, or never ends. */
  at(position: readonly number[]): FieldSample {
    if (this.compiled) {
      const [distance = NaN, part = 0] = this.compiled(...position);
      return { distance, part };
    }
    try {
      const { result, outs } = evaluateCall(this.program.fieldAt, [position, [0]], this.context);
      return { distance: components(result)[0] ?? NaN, part: components(outs['region'] ?? [0])[0] ?? 0 };
    } catch {
      return { distance: NaN, part: 0 };
    }
  }

  /** By differences at the corners of a tetrahedron; object space. @param reach metres to them, along each axis */
  slope(position: readonly number[], reach: number): number[] {
    const there = CORNERS.map((corner) => this.at(position.map((each, axis) => each + (corner[axis] ?? 0) * reach)).distance);
    return [0, 1, 2].map(
      (axis) => CORNERS.reduce((sum, corner, index) => sum + (corner[axis] ?? 0) * (there[index] ?? NaN), 0) / (4 * reach),
    );
  }
}
