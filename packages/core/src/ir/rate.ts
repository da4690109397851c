import { isPerPixel } from './builtins/table';
import { operands, walkBody } from './walk';
import type { Expression, IrFunction, Module } from './ir';

/** How often a value is computed, slowest to fastest changing. */
export type Rate = 'constant' | 'frame' | 'vertex' | 'pixel';

const ORDER: readonly Rate[] = ['constant', 'frame', 'vertex', 'pixel'];

export function fasterRate(a: Rate, b: Rate): Rate {
  return ORDER.indexOf(a) >= ORDER.indexOf(b) ? a : b;
}

/** The rates of expressions in one module; functions are looked into once. */
export class RateAnalysis {
  private readonly functionRates = new Map<string, Rate>();

  constructor(
    private readonly module: Module,
    /** Rates of the locals in scope, by name. */
    private readonly locals: ReadonlyMap<string, Rate> = new Map(),
    /** Uniform blocks that differ from one drawing of a frame to the next. */
    private readonly perDrawing: ReadonlySet<string> = new Set(),
  ) {}

  /** The rate of what the function adds by itself; its arguments' rates come on top. */
  ofFunction(declared: IrFunction): Rate {
    const known = this.functionRates.get(declared.signature);
    if (known) return known;
    let rate: Rate = 'constant';
    walkBody(declared.body, (expression) => (rate = fasterRate(rate, this.own(expression))));
    this.functionRates.set(declared.signature, rate);
    return rate;
  }

  ofExpression(expression: Expression): Rate {
    let rate = this.own(expression);
    if (expression.op === 'reference' && expression.scope === 'local') rate = this.locals.get(expression.name) ?? rate;
    for (const operand of operands(expression)) rate = fasterRate(rate, this.ofExpression(operand));
    return rate;
  }

  private own(expression: Expression): Rate {
    if (expression.op === 'builtin') return isPerPixel(expression.name) ? 'pixel' : 'constant';
    if (expression.op === 'call') {
      const callee = this.module.functions.get(expression.callee);
      return callee ? this.ofFunction(callee) : 'pixel';
    }
    if (expression.op !== 'reference' || expression.scope !== 'global') return 'constant';
    const { storage, block } = this.module.globals.get(expression.name) ?? {};
    if (block !== undefined && this.perDrawing.has(block)) return 'pixel';
    return storage === 'uniform' || storage === 'sampler' ? 'frame' : storage === 'const' ? 'constant' : 'pixel';
  }
}
