import { CLIP_POSITION, FRONT_FACING, INSTANCE_NUMBER, PIXEL_DEPTH, PIXEL_PLACE, VERTEX_NUMBER } from '../../../ir/builtin-variables';
import { local } from '../../../ir/build';
import type { Expression, Global, IrFunction, Statement } from '../../../ir/ir';
import { mapBody, mapStatements } from '../../../ir/map-body';
import { BOOL, FLOAT, UINT, VEC4, VOID, type StructType, type Type } from '../../../ir/types';
import { mapOperands, walkBody } from '../../../ir/walk';
import { alwaysReturns, NotInWgsl, WgslStatementWriter, writtenGlobal } from '../../../language';
import { GlslText } from './glsl-text';
import { type NameTable, type Original } from './text-writer';
import { WgslText } from './wgsl-text';

type Stage = 'pixels' | 'vertices';

/** What a stage takes in or gives, and what WGSL says of it. */
interface Port {
  /** In the IR. */
  readonly irName: string;
  readonly name: string;
  readonly type: Type;
  readonly attribute: string;
}

/** Built-in variables that GLSL has by name and WGSL hands to the entry point. */
const TAKEN: Readonly<Record<string, Omit<Port, 'irName'>>> = {
  [FRONT_FACING]: { name: 'frontFacing', type: BOOL, attribute: '@builtin(front_facing)' },
  [VERTEX_NUMBER]: { name: 'vertexIndex', type: UINT, attribute: '@builtin(vertex_index)' },
  [INSTANCE_NUMBER]: { name: 'instanceIndex', type: UINT, attribute: '@builtin(instance_index)' },
};
const GIVEN: Readonly<Record<string, Omit<Port, 'irName'>>> = {
  [CLIP_POSITION]: { name: 'clipPosition', type: VEC4, attribute: '@builtin(position)' },
  [PIXEL_DEPTH]: { name: 'pixelDepth', type: FLOAT, attribute: '@builtin(frag_depth)' },
};

/** Stands for what an entry point returns; no text can use this name. */
const RESULT = 'entry.result';

/** In GLSL rows count upwards, in WGSL downwards: a difference between rows has the other sign. */
function otherWayUp(declared: IrFunction): IrFunction {
  const turned = (expression: Expression): Expression => {
    const each = mapOperands(expression, turned);
    if (each.op === 'reference' && each.name === PIXEL_PLACE)
      throw new NotInWgsl('the pixel’s place, whose rows count upwards in GLSL and downwards in WGSL');
    return each.op === 'builtin' && each.name === 'dFdy' ? { op: 'unary', operator: '-', value: each, type: each.type } : each;
  };
  return { ...declared, body: mapBody(declared.body, turned) };
}

/** Functions that the entry point reaches, itself at the end. */
function reached(functions: readonly IrFunction[]): IrFunction[] {
  const bySignature = new Map(functions.map((each) => [each.signature, each]));
  const found = new Set<string>();
  const enter = (signature: string): void => {
    const declared = bySignature.get(signature);
    if (!declared || found.has(signature)) return;
    found.add(signature);
    walkBody(declared.body, (each) => void (each.op === 'call' && enter(each.callee)));
  };
  enter('main()');
  return functions.filter(({ signature }) => found.has(signature)).map(otherWayUp);
}

/** Whether a function takes, gives or computes with values of a struct. */
function speaksOf({ parameters, result, body }: IrFunction, name: string): boolean {
  const isIt = (type: Type): boolean =>
    type.kind === 'array'
      ? isIt(type.element)
      : type.kind === 'struct' && (type.name === name || type.fields.some((field) => isIt(field.type)));
  let found = isIt(result) || parameters.some(({ type }) => isIt(type));
  walkBody(body, ({ type }) => void (found ||= isIt(type)));
  return found;
}

function uses(functions: readonly IrFunction[], irName: string): boolean {
  let found = false;
  const at = (each: Expression): void => void (found ||= each.op === 'reference' && each.scope === 'global' && each.name === irName);
  for (const { body } of functions) walkBody(body, at);
  return found;
}

/** One stage of a whole program in WGSL: its `main` becomes an entry point that takes and gives what GLSL has in variables. */
export class WgslEntryText extends WgslText {
  private readonly all: readonly IrFunction[];
  private readonly helpers: readonly IrFunction[];
  private readonly taken: readonly Port[];
  private readonly given: readonly Port[];

  /** @param carried what the vertex stage hands to the pixel stage, in the order of its locations */
  constructor(
    from: Original,
    private readonly stage: Stage,
    carried: readonly string[],
    table: NameTable,
  ) {
    super(from, table);
    this.all = reached(super.ownFunctions());
    this.helpers = this.all.filter(({ signature }) => signature !== 'main()');
    const globals = [...from.read.module.globals.values()];
    const own = (storage: Global['storage']): Global[] =>
      globals.filter((each) => each.storage === storage && each.origin?.path === from.path);
    const port = (global: Global, location: number): Port => ({
      irName: global.name,
      name: this.plain(global.name),
      type: global.type,
      attribute: `@location(${location})${global.flat ? ' @interpolate(flat)' : ''}`,
    });
    const builtins = (known: typeof TAKEN): Port[] =>
      Object.entries(known).flatMap(([irName, each]) => (uses(this.all, irName) ? [{ irName, ...each }] : []));
    const placed = (list: readonly Global[], isCarried: boolean): Port[] =>
      list.map((each, index) => port(each, isCarried ? Math.max(carried.indexOf(each.name), 0) : (each.location ?? index)));
    const [ins, outs] = [own('in'), own('out')];
    const between = stage === 'vertices' ? outs.filter(({ name }) => carried.includes(name)) : outs;
    this.taken = [...placed(ins, stage === 'pixels' && carried.length > 0), ...builtins(TAKEN)];
    this.given = [...builtins(GIVEN), ...placed(between, stage === 'vertices')];
  }

  protected override ownFunctions(): readonly IrFunction[] {
    return this.all;
  }

  /** What the vertex stage gives and nobody takes stays inside of it. */
  protected override declares({ storage, name }: Global): boolean {
    return storage === 'private' || (storage === 'out' && !this.given.some(({ irName }) => irName === name));
  }

  protected override variable(global: Global): void {
    super.variable({ ...global, storage: 'private' });
  }

  /** What helpers read or write too stands outside of the entry point. */
  private isShared({ irName }: Port): boolean {
    return uses(this.helpers, irName);
  }

  protected override globalName(irName: string): string {
    const port = [...this.taken, ...this.given].find((each) => each.irName === irName);
    if (!port) return super.globalName(irName);
    const name = this.isShared(port) ? `${port.name}_here` : port.name;
    return irName === VERTEX_NUMBER || irName === INSTANCE_NUMBER ? `i32(${name})` : name;
  }

  protected override function(declared: IrFunction): void {
    if (declared.signature === 'main()') this.entry(declared);
    else super.function(declared);
  }

  private entry(declared: IrFunction): void {
    const word = this.stage === 'pixels' ? 'fragment' : 'vertex';
    const isOf = (port: Port): string => `${this.isShared(port) ? `${port.name}_here` : port.name}`;
    for (const port of [...this.taken, ...this.given].filter((each) => this.isShared(each)))
      this.out.line(`var<private> ${isOf(port)}: ${this.type(port.type)};`);
    const [only, ...more] = this.given;
    const struct = this.stage === 'pixels' ? 'Given' : 'Placed';
    if (more.length > 0) {
      this.out.line(`struct ${struct} {`);
      this.out.indented(() =>
        this.given.forEach(({ attribute, name, type }) => this.out.line(`${attribute} ${name}: ${this.type(type)},`)),
      );
      this.out.line('}');
    }
    const list = this.taken.map(({ attribute, name, type }) => `${attribute} ${name}: ${this.type(type)}`).join(', ');
    const result = !only ? '' : ` -> ${more.length > 0 ? struct : `${only.attribute} ${this.type(only.type)}`}`;
    this.out.line(`@${word}`);
    this.out.line(`fn ${this.table.freeFunction(this.stage)}(${list})${result} {`, declared.origin);
    const text = more.length > 0 ? `${struct}(${this.given.map(isOf).join(', ')})` : only ? isOf(only) : '';
    const names = { ...this.names, local: (name: string) => (name === RESULT ? text : this.names.local(name)) };
    const body = only ? returning(declared.body, local(RESULT, only.type)) : declared.body;
    this.out.indented(() => {
      for (const port of this.taken.filter((each) => this.isShared(each))) this.out.line(`${isOf(port)} = ${port.name};`);
      for (const port of this.given.filter((each) => !this.isShared(each))) this.out.line(`var ${port.name}: ${this.type(port.type)};`);
      const ends: Statement[] = only && !alwaysReturns(body) ? [{ op: 'return', value: local(RESULT, only.type) }] : [];
      new WgslStatementWriter({ ...declared, result: only?.type ?? VOID }, { ...this.context, names }, this.out).body([...body, ...ends]);
    });
    this.out.line('}');
  }
}

/** Statements whose bare `return` gives a value. */
function returning(body: readonly Statement[], value: Expression): Statement[] {
  return mapStatements(body, (each) => (each.op === 'return' ? { ...each, value } : each));
}

/** One stage of a whole program in GLSL, with the entry point’s own `main`, which reads and writes variables. */
export class GlslEntryText extends GlslText {
  private readonly all: readonly IrFunction[];

  constructor(from: Original) {
    super(from);
    this.all = reached(super.ownFunctions());
  }

  protected override ownFunctions(): readonly IrFunction[] {
    return this.all;
  }

  protected override declares(global: Global): boolean {
    return global.storage === 'private' && uses(this.all, global.name);
  }

  protected override globalName(irName: string): string {
    return irName.startsWith('builtin.') ? writtenGlobal(irName) : super.globalName(irName);
  }

  protected override clean(name: string): string {
    return name === 'main' ? name : super.clean(name);
  }

  /** Which uniforms the stage reads: the other one has its own text. */
  protected override uniform(name: string, type: Type, index: number, fallback: readonly number[] | undefined): void {
    if (uses(this.all, this.from.read.uniforms[index]?.irName ?? '')) super.uniform(name, type, index, fallback);
  }

  protected override function(declared: IrFunction): void {
    if (declared.signature === 'main()') this.ports();
    super.function(declared);
  }

  /** What only the other stage hands on has no place here. */
  protected override struct(struct: StructType): void {
    if (this.all.some((each) => speaksOf(each, struct.name))) super.struct(struct);
  }

  private ports(): void {
    this.out.line('');
    const globals = [...this.from.read.module.globals.values()].filter(({ origin }) => origin?.path === this.from.path);
    const outs = globals.filter(({ storage }) => storage === 'out');
    const several = outs.filter(({ location }) => location !== undefined).length > 1;
    for (const each of globals) {
      if (each.storage !== 'in' && each.storage !== 'out') continue;
      const layout = several && each.location !== undefined ? `layout(location = ${each.location}) ` : '';
      this.out.line(`${layout}${each.flat ? 'flat ' : ''}${each.storage} ${this.declarator(each.type, each.name)};`);
    }
  }
}
