import type { Expression, IrFunction, Loop, Statement, Switch } from '../../../ir/ir';
import type { Origin } from '../../../ir/origin';
import { scalarOf, type Type } from '../../../ir/types';
import { expressionsOf, walkExpression, walkStatements } from '../../../ir/walk';
import { wgslTypeName } from '../../wgsl/wgsl-types';
import type { LineWriter } from '../line-writer';
import type { PrintedNames } from '../print-expression';
import { bare, printWgsl, type WgslNames } from './print-wgsl-expression';

/** What the writer of a function's statements is told. */
export interface WgslFunctionContext {
  readonly names: PrintedNames;
  readonly functions: ReadonlyMap<string, IrFunction>;
  samplerOf(image: string): string;
  /** Called before a statement: what stands before it in the text, comments above all. */
  before?(origin: Origin | undefined): void;
}

const COMPOUND = new Set(['+', '-', '*', '/', '%', '&', '|', '^']);

/** Writes the statements of one function in WGSL. */
export class WgslStatementWriter implements WgslNames {
  private readonly pointers: ReadonlySet<string>;
  private made = 0;

  constructor(
    private readonly declared: IrFunction,
    private readonly context: WgslFunctionContext,
    private readonly out: LineWriter,
  ) {
    this.pointers = new Set(declared.parameters.filter(({ direction }) => direction !== 'in').map(({ name }) => name));
  }

  functionOf(signature: string): string {
    return this.context.names.functionOf(signature);
  }
  global(name: string): string {
    return this.context.names.global(name);
  }
  local(name: string): string {
    return this.context.names.local(name);
  }
  struct(name: string): string {
    return this.context.names.struct(name);
  }
  field(struct: string, name: string): string {
    return this.context.names.field(struct, name);
  }
  isPointer(name: string): boolean {
    return this.pointers.has(name);
  }
  samplerOf(image: string): string {
    return this.context.samplerOf(image);
  }

  type(type: Type): string {
    return wgslTypeName(type, ({ name }) => this.struct(name));
  }

  /** `fn name(a: f32, b: ptr<function, f32>) -> f32` */
  head(): string {
    const { signature, parameters, result } = this.declared;
    const list = parameters.flatMap(({ name, type, direction }) => {
      const word = direction === 'in' ? this.type(type) : `ptr<function, ${this.type(type)}>`;
      const own = `${this.changes(name) ? `given_${this.local(name)}` : this.local(name)}: ${word}`;
      return type.kind === 'sampler' ? [own, `${this.samplerOf(name)}: sampler`] : [own];
    });
    return `fn ${this.functionOf(signature)}(${list.join(', ')})${result.kind === 'void' ? '' : ` -> ${this.type(result)}`}`;
  }

  /** The whole function. */
  write(): void {
    this.out.line(`${this.head()} {`, this.declared.origin);
    this.out.indented(() => {
      for (const { name } of this.declared.parameters)
        if (this.changes(name)) this.out.line(`var ${this.local(name)} = given_${this.local(name)};`);
      this.statements(this.declared.body);
    });
    this.out.line('}');
  }

  /** Statements of the function, without its head. */
  body(statements: readonly Statement[]): void {
    this.statements(statements);
  }

  /** Parameters that are changed inside are copied first: in WGSL they keep their value. */
  private changes(name: string): boolean {
    if (this.pointers.has(name)) return false;
    let changed = false;
    walkStatements(this.declared.body, (statement) => {
      if (statement.op === 'assign' && rootOf(statement.target) === name) changed = true;
      for (const call of callsOf(statement)) {
        this.context.functions.get(call.callee)?.parameters.forEach(({ direction }, index) => {
          const arg = call.args[index];
          if (direction !== 'in' && arg && rootOf(arg) === name) changed = true;
        });
      }
    });
    return changed;
  }

  /** A call; where it writes to arguments that have no address of their own, through variables that are copied back. */
  call(expression: Extract<Expression, { op: 'call' }>, args: readonly string[]): string {
    const { parameters = [] } = this.context.functions.get(expression.callee) ?? {};
    const after: string[] = [];
    let writes = false;
    const given = expression.args.map((arg, index): string => {
      const { direction = 'in' } = parameters[index] ?? {};
      if (arg.type.kind === 'sampler' && arg.op === 'reference') return `${args[index] ?? ''}, ${this.samplerOf(arg.name)}`;
      if (direction === 'in') return args[index] ?? '';
      writes = true;
      if (arg.op === 'reference' && arg.scope === 'local')
        return this.isPointer(arg.name) ? this.local(arg.name) : `&${this.local(arg.name)}`;
      const name = this.fresh();
      this.out.line(`var ${name} = ${bare(arg, this)};`);
      after.push(...this.assigned(arg, name));
      return `&${name}`;
    });
    const text = `${this.functionOf(expression.callee)}(${given.join(', ')})`;
    if (!writes || after.length === 0) return text;
    if (expression.type.kind === 'void') {
      this.out.line(`${text};`);
      after.forEach((line) => this.out.line(line));
      return '';
    }
    const result = this.fresh();
    this.out.line(`let ${result} = ${text};`);
    after.forEach((line) => this.out.line(line));
    return result;
  }

  private fresh(): string {
    return `copy${++this.made}`;
  }

  /** Lines that put a value into a place; several components one after the other. */
  private assigned(target: Expression, value: string): string[] {
    if (target.op !== 'swizzle' || target.components.length === 1) return [`${printWgsl(target, this)} = ${value};`];
    const place = printWgsl(target.object, this);
    return target.components.map((component, index) => `${place}.${'xyzw'[component]} = ${value}.${'xyzw'[index]};`);
  }

  private statements(statements: readonly Statement[]): void {
    for (const statement of statements) this.statement(statement);
  }

  private braces(head: string, body: () => void, tail = '}', origin?: Origin): void {
    this.out.line(head === '' ? '{' : `${head} {`, origin);
    this.out.indented(() => {
      body();
      if (origin?.range && tail === '}')
        this.context.before?.({ path: origin.path, range: { from: origin.range.to, to: origin.range.to } });
    });
    this.out.line(tail);
  }

  private statement(statement: Statement): void {
    const { origin } = statement;
    this.context.before?.(origin);
    const line = (text: string): void => this.out.line(text, origin);
    switch (statement.op) {
      case 'declare': {
        const { name, type, value, mutable } = statement;
        if (!value) line(`var ${this.local(name)}: ${this.type(type)};`);
        else line(`${mutable ? 'var' : 'let'} ${this.local(name)} = ${bare(value, this)};`);
        return;
      }
      case 'assign':
        this.assign(statement);
        return;
      case 'evaluate': {
        const text = bare(statement.value, this);
        const isVoid = statement.value.op === 'call' && statement.value.type.kind === 'void';
        if (text !== '') line(isVoid ? `${text};` : `_ = ${text};`);
        return;
      }
      case 'if': {
        const condition = bare(statement.condition, this);
        const { else: other } = statement;
        this.braces(`if ${condition}`, () => this.statements(statement.then), other.length > 0 ? '} else {' : '}', origin);
        if (other.length === 0) return;
        this.out.indented(() => this.statements(other));
        line('}');
        return;
      }
      case 'switch':
        this.switch(statement);
        return;
      case 'loop':
        this.loop(statement);
        return;
      case 'block': {
        const [start, loop] = statement.body;
        // What a loop begins with stands in its head.
        if (statement.body.length === 2 && start?.op === 'declare' && start.value && loop?.op === 'loop' && this.fitsHead(loop))
          this.loop(loop, `var ${this.local(start.name)} = ${bare(start.value, this)}`);
        else this.braces('', () => this.statements(statement.body), '}', origin);
        return;
      }
      case 'return':
        line(statement.value ? `return ${bare(statement.value, this)};` : 'return;');
        return;
      default:
        line(`${statement.op};`);
    }
  }

  private assign({ target, value, origin }: Extract<Statement, { op: 'assign' }>): void {
    if (target.op !== 'swizzle' || target.components.length === 1) {
      this.out.line(`${this.assignment(target, value)};`, origin);
      return;
    }
    const name = this.fresh();
    this.out.line(`let ${name} = ${bare(value, this)};`, origin);
    for (const line of this.assigned(target, name)) this.out.line(line, origin);
  }

  /** `a += b` where a is read and written, `i++` for one more. */
  private assignment(target: Expression, value: Expression): string {
    const text = bare(value, this);
    const place =
      target.op === 'reference' && target.scope === 'local' && this.isPointer(target.name)
        ? `*${this.local(target.name)}`
        : printWgsl(target, this);
    if (value.op !== 'binary' || !COMPOUND.has(value.operator) || printWgsl(value.left, this) !== printWgsl(target, this))
      return `${place} = ${text}`;
    const { operator, right } = value;
    const one = right.op === 'constant' && right.value[0] === 1 && scalarOf(target.type) !== 'float' && target.type.kind === 'scalar';
    if (one && (operator === '+' || operator === '-')) return `${place}${operator}${operator}`;
    // Only where both sides are written as they stand: shifts and matrices are written otherwise.
    const plain = text === `${printWgsl(target, this)} ${operator} ${printWgsl(right, this)}`;
    return plain ? `${place} ${operator}= ${bare(right, this)}` : `${place} = ${text}`;
  }

  /** Whether a loop can be written with its step in its head. */
  private fitsHead({ testFirst, step }: Loop): boolean {
    const [only] = step;
    return testFirst && step.length === 1 && only?.op === 'assign' && !(only.target.op === 'swizzle' && only.target.components.length > 1);
  }

  private loop(loop: Loop, start = ''): void {
    const { condition, testFirst, body, step, origin } = loop;
    const [only] = step;
    const always = condition.op === 'constant' && condition.value[0] === 1;
    if (testFirst && step.length === 0) {
      this.braces(always ? 'loop' : `while ${bare(condition, this)}`, () => this.statements(body), '}', origin);
      return;
    }
    if (this.fitsHead(loop) && only?.op === 'assign') {
      const head = `for (${start}; ${always ? '' : bare(condition, this)}; ${this.assignment(only.target, only.value)})`;
      this.braces(head, () => this.statements(body), '}', origin);
      return;
    }
    this.braces(
      'loop',
      () => {
        if (testFirst && !always) this.out.line(`if !(${bare(condition, this)}) { break; }`);
        this.statements(body);
        this.braces('continuing', () => {
          this.statements(step);
          if (!testFirst) this.out.line(`break if !(${bare(condition, this)});`);
        });
      },
      '}',
      origin,
    );
  }

  /** WGSL has no falling through: what would be fallen into is written again. */
  private switch({ selector, cases, origin }: Switch): void {
    const scalar = scalarOf(selector.type) === 'uint' ? 'u' : 'i';
    this.braces(
      `switch ${bare(selector, this)}`,
      () => {
        cases.forEach((each, index) => {
          const labels = [...each.values.map((value) => `${value}${scalar}`), ...(each.otherwise ? ['default'] : [])];
          const body: Statement[] = [];
          for (const next of cases.slice(index)) {
            body.push(...next.body);
            if (leaves(next.body.at(-1))) break;
          }
          const last = body.at(-1);
          const kept = last?.op === 'break' ? body.slice(0, -1) : body;
          this.braces(labels.length === 1 && each.otherwise ? 'default:' : `case ${labels.join(', ')}:`, () => this.statements(kept));
        });
        if (!cases.some(({ otherwise }) => otherwise)) this.out.line('default: {}');
      },
      '}',
      origin,
    );
  }
}

function leaves(statement: Statement | undefined): boolean {
  if (!statement) return false;
  if (statement.op === 'block') return leaves(statement.body.at(-1));
  return statement.op === 'break' || statement.op === 'return' || statement.op === 'continue' || statement.op === 'discard';
}

function rootOf(target: Expression): string | undefined {
  let root = target;
  while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
  return root.op === 'reference' && root.scope === 'local' ? root.name : undefined;
}

function callsOf(statement: Statement): Extract<Expression, { op: 'call' }>[] {
  const found: Extract<Expression, { op: 'call' }>[] = [];
  for (const expression of expressionsOf(statement))
    walkExpression(expression, (each) => {
      if (each.op === 'call') found.push(each);
    });
  return found;
}
