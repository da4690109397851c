import { needsNeighbours } from '../ir/builtins/table';
import type { Expression, Global, IrFunction } from '../ir/ir';
import type { Range } from '../ir/origin';
import { operands } from '../ir/walk';
import type { CodeMend } from './diagnostics';
import type { FunctionScope } from './scope';

/** A call that needs its neighbours, where they may have gone another way. */
export interface DividedCall {
  readonly name: string;
  /** Of an own or library function: which one, whose inside tells. */
  readonly callee?: string;
  readonly range: Range;
  readonly where: 'branch' | 'loop';
  readonly mend?: CodeMend;
}

/**
 * Where the statements of a function stand in its flow of control. Differences between neighbouring pixels (derivatives,
 * and the size of the image that `texture` chooses by them) are only defined where all neighbours come along, GLSL ES
 * 3.00 sections 8.8 and 8.9.
 */
export class ControlFlow {
  readonly divided: DividedCall[] = [];
  /** A function is called whose own body is not read yet. */
  callsAhead = false;
  private loops = 0;
  private branches = 0;
  /** Some neighbours may have returned. */
  private left = false;

  constructor(
    private readonly scope: FunctionScope,
    private readonly globalOf: (name: string) => Global | undefined,
  ) {}

  /** Statements that only run where a condition holds. */
  branch<T>(condition: Expression, work: () => T): T {
    const uniform = this.isUniform(condition);
    if (!uniform) this.branches++;
    try {
      return work();
    } finally {
      if (!uniform) this.branches--;
    }
  }

  loop<T>(work: () => T): T {
    this.loops++;
    try {
      return work();
    } finally {
      this.loops--;
    }
  }

  /** A `return`: where not all neighbours take it, those that go on are fewer. */
  leave(): void {
    if (this.branches > 0) this.left = true;
  }

  get where(): 'branch' | 'loop' | undefined {
    if (this.branches > 0 || this.left) return 'branch';
    return this.loops > 0 ? 'loop' : undefined;
  }

  /** Notes a call that may need its neighbours. @param callee absent for what is built in */
  call(name: string, callee: IrFunction | undefined, range: Range, mend?: CodeMend): void {
    const { where } = this;
    if (callee?.body.length === 0) this.callsAhead = true;
    if (where) this.divided.push({ name, callee: callee?.signature, range, where, mend });
  }

  /** Whether an expression is the same for all neighbours; in doubt it is not. */
  isUniform(expression: Expression): boolean {
    switch (expression.op) {
      case 'constant':
        return true;
      case 'reference': {
        if (expression.scope === 'local') return this.scope.ofIr(expression.name)?.uniform ?? false;
        const { storage } = this.globalOf(expression.name) ?? {};
        return storage === 'uniform' || storage === 'const';
      }
      case 'call':
        return false;
      case 'builtin':
        if (needsNeighbours(expression.name)) return false;
    }
    return operands(expression).every((each) => this.isUniform(each));
  }
}
