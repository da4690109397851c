import { local, member } from '../ir/build';
import type { Expression, IrFunction, Statement } from '../ir/ir';
import type { StructType } from '../ir/types';
import { inner } from '../ir/walk';

/** Something that may keep a value from being 0: anything, or a field of one of the function's parameters, `index.field`. */
type Reason = string;
const ANYTHING: Reason = '*';
type Reasons = ReadonlySet<Reason>;
const NONE: Reasons = new Set();
const UNKNOWN: Reasons = new Set([ANYTHING]);
/** By field of the light; fields that are absent are always 0. */
type Fields = ReadonlyMap<string, Reasons>;

/**
 * Finds which terms of a light may differ from 0, so that programs need not add up what never does. It errs on the
 * safe side: a term that it leaves out is 0 whatever the inputs.
 */
export class LitTerms {
  private readonly summaries = new Map<string, Fields>();

  constructor(
    private readonly lit: StructType,
    private readonly functions: ReadonlyMap<string, IrFunction>,
  ) {}

  /** Terms of what a function without parameters returns. */
  of(declared: IrFunction): string[] {
    const fields = this.summary(declared);
    return this.lit.fields.map((field) => field.name).filter((name) => (fields.get(name)?.size ?? 0) > 0);
  }

  private summary(declared: IrFunction): Fields {
    const known = this.summaries.get(declared.signature);
    if (known) return known;
    // A function that comes back to itself may give anything.
    this.summaries.set(declared.signature, this.anything());
    const locals = new Map<string, Map<string, Reasons>>();
    declared.parameters.forEach(({ name, type }, index) => {
      if (this.isLit(type)) locals.set(name, new Map(this.lit.fields.map((field) => [field.name, new Set([`${index}.${field.name}`])])));
    });
    const result = new Map<string, Reasons>();
    // What a loop assigns may come round again: until nothing is added any more.
    for (let before = -1, now = 0; now !== before;) {
      before = now;
      for (const statement of declared.body) this.follow(statement, locals, result);
      now = [...locals.values(), result].reduce(
        (sum, fields) => sum + [...fields.values()].reduce((count, each) => count + each.size, 0),
        0,
      );
    }
    this.summaries.set(declared.signature, result);
    return result;
  }

  private follow(statement: Statement, locals: Map<string, Map<string, Reasons>>, result: Map<string, Reasons>): void {
    const keep = (name: string, fields: Fields): void => {
      const known = locals.get(name) ?? new Map<string, Reasons>();
      locals.set(name, known);
      merge(known, fields);
    };
    if (statement.op === 'declare' && this.isLit(statement.type))
      keep(statement.name, statement.value ? this.fields(statement.value, locals) : new Map());
    if (statement.op === 'assign') {
      const { target, value } = statement;
      if (target.op === 'reference' && this.isLit(target.type)) keep(target.name, this.fields(value, locals));
      const [root, field] = rootOf(target);
      if (root && field !== undefined && this.isLit(root.type) && root.op === 'reference')
        keep(root.name, new Map([[field, this.reasons(value, locals)]]));
    }
    if (statement.op === 'return' && statement.value && this.isLit(statement.value.type))
      merge(result, this.fields(statement.value, locals));
    for (const each of inner(statement)) this.follow(each, locals, result);
  }

  /** Of a light, why each of its fields may not be 0. */
  private fields(expression: Expression, locals: ReadonlyMap<string, Fields>): Fields {
    switch (expression.op) {
      case 'reference':
        return locals.get(expression.name) ?? this.anything();
      case 'construct':
        return new Map(
          this.lit.fields.map((field, index) => [
            field.name,
            expression.args[index] ? this.reasons(expression.args[index], locals) : UNKNOWN,
          ]),
        );
      case 'conditional': {
        const both = new Map(this.fields(expression.then, locals));
        merge(both, this.fields(expression.else, locals));
        return both;
      }
      case 'call': {
        const callee = this.functions.get(expression.callee);
        if (!callee || callee.parameters.some(({ type, direction }) => direction !== 'in' && this.isLit(type))) return this.anything();
        const args = expression.args.map((arg) => (this.isLit(arg.type) ? this.fields(arg, locals) : undefined));
        const put = (reason: Reason): Reasons => {
          if (reason === ANYTHING) return UNKNOWN;
          const dot = reason.indexOf('.');
          return args[Number(reason.slice(0, dot))]?.get(reason.slice(dot + 1)) ?? NONE;
        };
        return new Map([...this.summary(callee)].map(([field, reasons]) => [field, union([...reasons].map(put))]));
      }
      default:
        return this.anything();
    }
  }

  /** Why a number or vector may not be 0. */
  private reasons(expression: Expression, locals: ReadonlyMap<string, Fields>): Reasons {
    switch (expression.op) {
      case 'constant':
        return expression.value.every((each) => each === 0) ? NONE : UNKNOWN;
      case 'construct':
        return union(expression.args.map((arg) => this.reasons(arg, locals)));
      case 'swizzle':
        return this.reasons(expression.object, locals);
      case 'unary':
        return expression.operator === '-' ? this.reasons(expression.value, locals) : UNKNOWN;
      case 'member':
        return this.isLit(expression.object.type) ? (this.fields(expression.object, locals).get(expression.field) ?? NONE) : UNKNOWN;
      case 'binary': {
        const [left, right] = [this.reasons(expression.left, locals), this.reasons(expression.right, locals)];
        if (expression.operator === '+' || expression.operator === '-') return union([left, right]);
        // A product is not 0 only where neither factor is: either one's reasons hold.
        if (expression.operator === '*') return left.has(ANYTHING) ? right : left;
        return UNKNOWN;
      }
      default:
        return UNKNOWN;
    }
  }

  private anything(): Fields {
    return new Map(this.lit.fields.map((field) => [field.name, UNKNOWN]));
  }

  private isLit(type: Expression['type']): boolean {
    return type.kind === 'struct' && type.name === this.lit.name;
  }
}

function union(all: readonly Reasons[]): Reasons {
  const found = new Set(all.flatMap((each) => [...each]));
  return found.has(ANYTHING) ? UNKNOWN : found;
}

function merge(into: Map<string, Reasons>, fields: Fields): void {
  for (const [field, reasons] of fields) into.set(field, union([into.get(field) ?? NONE, reasons]));
}

/** The light that an assignment to a part of it is about, and which of its fields. */
function rootOf(target: Expression): [Expression | undefined, string | undefined] {
  let at = target;
  while (at.op === 'swizzle' || at.op === 'index') at = at.object;
  return at.op === 'member' ? [at.object, at.field] : [undefined, undefined];
}

/** The sum of some terms of a light, in place of the library's function of this name, which adds all. */
export function sumOfTerms(declared: IrFunction, terms: readonly string[]): IrFunction {
  const [parameter] = declared.parameters;
  if (!parameter) throw new RangeError(`${declared.signature} has no parameter`);
  const light = local(parameter.name, parameter.type);
  const zero: Expression = { op: 'constant', type: declared.result, value: [0, 0, 0] };
  const sum = terms
    .map((term): Expression => member(light, term))
    .reduce<Expression | undefined>(
      (left, right) => (left ? { op: 'binary', operator: '+', left, right, type: declared.result } : right),
      undefined,
    );
  return { ...declared, body: [{ op: 'return', value: sum ?? zero }] };
}
