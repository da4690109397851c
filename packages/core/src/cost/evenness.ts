import { isPerPixel } from '../ir/builtins/table';
import type { Construct, Declare, Expression, Global, IrFunction, Statement } from '../ir/ir';
import { isFloatLike, scalarOf } from '../ir/types';
import { operands } from '../ir/walk';

/**
 * How a value changes over a triangle: not at all, evenly (as a sum of what vertices hand on, each times a number), or in another
 * way. What changes evenly comes to the same whether it is computed per pixel or per vertex and interpolated.
 */
export type Evenness = 'same' | 'even' | 'other';

const ORDER: readonly Evenness[] = ['same', 'even', 'other'];
const worst = (all: readonly Evenness[]): Evenness => ORDER[Math.max(0, ...all.map((each) => ORDER.indexOf(each)))] ?? 'other';

/** Built-in functions that give so many times what they are given. */
const SCALING = new Set(['radians', 'degrees', 'transpose']);
/** Built-in functions that are even in one argument while the other stays the same. */
const PRODUCTS = new Set(['dot', 'cross', 'matrixCompMult']);

/** Which locals of a line of declarations change evenly. */
export function evennessOf(line: readonly Declare[], scope: EvennessScope): ReadonlyMap<string, Evenness> {
  const known = new Map<string, Evenness>();
  const look = new Look(scope);
  for (const { name, value } of line) known.set(name, value ? look.expression(value, known) : 'other');
  return known;
}

export interface EvennessScope {
  readonly functions: ReadonlyMap<string, IrFunction>;
  /** What the pixel stage is handed, by name. */
  readonly inputs: ReadonlyMap<string, Global>;
  /** Names of what is the same at all pixels of a drawing. */
  readonly uniforms: ReadonlySet<string>;
}

const DEEPEST = 12;

class Look {
  private depth = 0;

  constructor(private readonly scope: EvennessScope) {}

  expression(expression: Expression, locals: ReadonlyMap<string, Evenness>): Evenness {
    const of = (each: Expression): Evenness => this.expression(each, locals);
    const parts = operands(expression).map(of);
    const all = worst(parts);
    switch (expression.op) {
      case 'constant':
        return 'same';
      case 'reference':
        return expression.scope === 'local' ? (locals.get(expression.name) ?? 'other') : this.global(expression.name);
      case 'call':
        return this.call(expression.callee, parts);
      case 'unary':
        return expression.operator === '-' ? all : sameOrOther(all);
      case 'member':
      case 'swizzle':
        return all;
      case 'index':
        return of(expression.index) === 'same' ? all : 'other';
      case 'construct':
        return isPutTogether(expression) ? all : sameOrOther(all);
      case 'conditional':
        return parts[0] === 'same' ? worst(parts.slice(1)) : 'other';
      case 'binary':
        if (expression.operator === '+' || expression.operator === '-') return all;
        if (expression.operator === '*') return parts.includes('same') ? all : sameOrOther(all);
        if (expression.operator === '/') return parts[1] === 'same' && scalarOf(expression.left.type) === 'float' ? all : sameOrOther(all);
        return sameOrOther(all);
      case 'builtin':
        return this.builtin(expression.name, parts);
    }
  }

  private builtin(name: string, parts: readonly Evenness[]): Evenness {
    if (isPerPixel(name)) return 'other';
    const all = worst(parts);
    if (SCALING.has(name)) return all;
    if (PRODUCTS.has(name)) return parts.includes('same') ? all : 'other';
    if (name === 'mix') return parts[2] === 'same' ? all : 'other';
    return sameOrOther(all);
  }

  private global(name: string): Evenness {
    const input = this.scope.inputs.get(name);
    if (input) return !input.flat && isFloatLike(input.type) ? 'even' : 'other';
    return this.scope.uniforms.has(name) ? 'same' : 'other';
  }

  /** Follows functions that go straight from their first statement to their last. */
  private call(signature: string, args: readonly Evenness[]): Evenness {
    const declared = this.scope.functions.get(signature);
    if (!declared || this.depth >= DEEPEST || declared.parameters.some(({ direction }) => direction !== 'in')) return 'other';
    const locals = new Map(declared.parameters.map(({ name }, index) => [name, args[index] ?? 'other']));
    this.depth++;
    try {
      for (const statement of declared.body) {
        if (statement.op === 'return') return statement.value ? this.expression(statement.value, locals) : 'other';
        if (!this.step(statement, locals)) return 'other';
      }
      return 'other';
    } finally {
      this.depth--;
    }
  }

  /** Whether it could be followed. */
  private step(statement: Statement, locals: Map<string, Evenness>): boolean {
    if (statement.op === 'declare') {
      locals.set(statement.name, statement.value ? this.expression(statement.value, locals) : 'same');
      return true;
    }
    if (statement.op !== 'assign') return false;
    let root = statement.target;
    while (root.op === 'member' || root.op === 'swizzle') root = root.object;
    if (root.op !== 'reference' || root.scope !== 'local') return false;
    const value = this.expression(statement.value, locals);
    locals.set(root.name, root === statement.target ? value : worst([value, locals.get(root.name) ?? 'other']));
    return true;
  }
}

function sameOrOther(evenness: Evenness): Evenness {
  return evenness === 'same' ? 'same' : 'other';
}

/** Whether numbers are put beside each other as they are: a whole number made of a fraction jumps. */
function isPutTogether({ type, args }: Construct): boolean {
  return type.kind === 'struct' || (isFloatLike(type) && args.every((each) => scalarOf(each.type) === 'float'));
}
