import { componentCount, NAMED_TYPES, ofSize, scalarOf, typeName, type Type } from '../ir/types';
import { BUILTIN_FUNCTIONS } from '../ir/builtins/table';
import { BUILTINS } from '../language/builtins';
import type { Random } from './random';

/** A function of random code that is right. */
export interface RandomFunction {
  readonly name: string;
  readonly text: string;
}

const VALUES = [
  'float',
  'vec2',
  'vec3',
  'vec4',
  'int',
  'ivec2',
  'ivec3',
  'ivec4',
  'uint',
  'uvec2',
  'uvec3',
  'uvec4',
  'bool',
  'bvec2',
  'bvec3',
  'bvec4',
].concat(['mat2', 'mat3', 'mat4']);
/** Types that most code is made of. */
const USUAL = ['float', 'vec2', 'vec3', 'vec4', 'int', 'bool', 'float', 'vec3'];
const NOT_WITHOUT_IMAGES = /sampler/;
/** Not defined where control flow may part. */
const NEIGHBOURS = new Set(['dFdx', 'dFdy', 'fwidth']);

interface Local {
  readonly name: string;
  readonly type: string;
  readonly fixed: boolean;
}

type Giver = { readonly name: string; readonly parameters: readonly string[] };

let giving: ReadonlyMap<string, readonly Giver[]> | undefined;

/** Built-in overloads by the type that they give. */
function givers(): ReadonlyMap<string, readonly Giver[]> {
  if (giving) return giving;
  const made = new Map<string, Giver[]>();
  for (const [name, overloads] of BUILTINS) {
    if (BUILTIN_FUNCTIONS.get(name)?.writes !== undefined) continue;
    for (const { result, parameters } of overloads) {
      const types = parameters.map(typeName);
      if (types.some((type) => NOT_WITHOUT_IMAGES.test(type)) || NEIGHBOURS.has(name)) continue;
      made.set(typeName(result), [...(made.get(typeName(result)) ?? []), { name, parameters: types }]);
    }
  }
  giving = made;
  return made;
}

/** Writes functions of random statements whose types are right; later ones call earlier ones. */
export class WellTyped {
  private readonly helpers: { readonly name: string; readonly parameters: readonly string[]; readonly result: string }[] = [];
  private locals: Local[] = [];
  private count = 0;
  private indent = 1;
  private lines: string[] = [];
  private budget = 0;

  /** @param prefix begins all names, so that several may stand in one text */
  constructor(
    private readonly random: Random,
    private readonly prefix: string,
  ) {}

  /** `vec4 NAME(vec3 a, float b, vec2 c, int d)`, with what it needs. */
  program(): RandomFunction {
    const helpers = Array.from({ length: this.random.whole(3) }, () => this.helper());
    const struct = this.random.chance(0.3) ? `struct ${this.prefix}S { float x; vec3 y; int z; float w[3]; };\n` : '';
    this.struct = struct ? `${this.prefix}S` : undefined;
    const name = `${this.prefix}main`;
    const main = this.function(name, 'vec4', ['vec3', 'float', 'vec2', 'int']);
    return { name, text: `${struct}${helpers.join('')}${main}` };
  }

  private struct?: string;

  private helper(): string {
    const parameters = Array.from({ length: 1 + this.random.whole(3) }, () => this.random.of(USUAL));
    const result = this.random.of(USUAL);
    const name = `${this.prefix}h${this.helpers.length}`;
    const text = this.function(name, result, parameters);
    this.helpers.push({ name, parameters, result });
    return text;
  }

  private function(name: string, result: string, parameters: readonly string[]): string {
    this.locals = parameters.map((type, index) => ({ name: `p${index}`, type, fixed: false }));
    this.lines = [];
    this.indent = 1;
    this.budget = 12;
    const head = parameters.map((type, index) => `${type} p${index}`).join(', ');
    this.statements(2 + this.random.whole(5), false);
    this.line(`return ${this.value(result, 3)};`);
    return `${result} ${name}(${head}) {\n${this.lines.join('\n')}\n}\n`;
  }

  private line(text: string): void {
    this.lines.push(`${'  '.repeat(this.indent)}${text}`);
  }

  private statements(count: number, inLoop: boolean): void {
    for (let each = 0; each < count && this.budget > 0; each++) {
      this.budget--;
      this.statement(inLoop);
    }
  }

  private inside(work: () => void): void {
    const before = this.locals;
    this.indent++;
    work();
    this.indent--;
    this.locals = before;
  }

  private statement(inLoop: boolean): void {
    const kind = this.random.whole(inLoop ? 11 : 10);
    if (kind < 4) this.declare();
    else if (kind < 6) this.assign();
    else if (kind === 6) this.if(inLoop);
    else if (kind === 7) this.for();
    else if (kind === 8) this.array();
    else if (kind === 9) this.while();
    else this.line(`if (${this.value('bool', 1)}) ${this.random.of(['break', 'continue'])};`);
  }

  private fresh(): string {
    return `v${this.count++}`;
  }

  private declare(): void {
    const { struct } = this;
    if (struct && this.random.chance(0.15)) {
      const name = this.fresh();
      const list = Array.from({ length: 3 }, () => this.value('float', 1)).join(', ');
      this.line(
        `${struct} ${name} = ${struct}(${this.value('float', 1)}, ${this.value('vec3', 1)}, ${this.value('int', 1)}, float[3](${list}));`,
      );
      this.line(`${name}.w[${this.random.whole(3)}] = ${this.value('float', 1)};`);
      const field = this.fresh();
      this.line(`float ${field} = ${name}.x + ${name}.w[${this.random.whole(3)}];`);
      this.locals = [...this.locals, { name: field, type: 'float', fixed: false }];
      return;
    }
    const type = this.random.chance(0.7) ? this.random.of(USUAL) : this.random.of(VALUES);
    const fixed = this.random.chance(0.1);
    const value = this.value(type, 3);
    const name = this.fresh();
    this.line(`${type} ${name} = ${value};`);
    this.locals = [...this.locals, { name, type, fixed }];
  }

  private array(): void {
    const type = this.random.of(['float', 'vec2', 'vec4', 'int']);
    const length = 2 + this.random.whole(3);
    const name = this.fresh();
    const list = Array.from({ length }, () => this.value(type, 1)).join(', ');
    this.line(`${type} ${name}[${length}] = ${type}[${length}](${list});`);
    const picked = this.fresh();
    const index = this.random.chance(0.5)
      ? String(this.random.whole(length))
      : `int(clamp(${this.value('float', 1)}, 0.0, ${length - 1}.0))`;
    this.line(`${name}[${this.random.whole(length)}] = ${this.value(type, 1)};`);
    this.line(`${type} ${picked} = ${name}[${index}];`);
    this.locals = [...this.locals, { name: picked, type, fixed: false }];
  }

  private assign(): void {
    const candidates = this.locals.filter(({ fixed }) => !fixed);
    if (candidates.length === 0) return;
    const { name, type } = this.random.of(candidates);
    const parsed = NAMED_TYPES.get(type);
    if (parsed?.kind === 'vector' && this.random.chance(0.4)) {
      const letters = [...'xyzw'.slice(0, parsed.size)].sort(() => this.random.next() - 0.5).slice(0, 1 + this.random.whole(parsed.size));
      this.line(`${name}.${letters.join('')} = ${this.value(typeName(ofSize(parsed.scalar, letters.length)), 2)};`);
      return;
    }
    const scalar = parsed ? scalarOf(parsed) : undefined;
    if (scalar && scalar !== 'bool' && this.random.chance(0.4))
      this.line(`${name} ${this.random.of(['+=', '-=', '*='])} ${this.value(type, 2)};`);
    else if (type === 'int' && this.random.chance(0.5)) this.line(`${name}${this.random.of(['++', '--'])};`);
    else this.line(`${name} = ${this.value(type, 3)};`);
  }

  private if(inLoop: boolean): void {
    this.line(`if (${this.value('bool', 2)}) {`);
    this.inside(() => this.statements(1 + this.random.whole(2), inLoop));
    if (this.random.chance(0.5)) {
      this.line('} else {');
      this.inside(() => this.statements(1 + this.random.whole(2), inLoop));
    }
    this.line('}');
  }

  private for(): void {
    const index = this.fresh();
    this.line(`for (int ${index} = 0; ${index} < ${1 + this.random.whole(6)}; ${index}++) {`);
    this.inside(() => {
      this.locals = [...this.locals, { name: index, type: 'int', fixed: true }];
      this.statements(1 + this.random.whole(2), true);
    });
    this.line('}');
  }

  private while(): void {
    const index = this.fresh();
    this.line(`int ${index} = 0;`);
    const more = `${index} < ${1 + this.random.whole(5)}${this.random.chance(0.3) ? ` && ${this.value('bool', 1)}` : ''}`;
    const first = this.random.chance(0.7);
    this.line(first ? `while (${more}) {` : 'do {');
    this.inside(() => {
      this.line(`${index}++;`);
      this.statements(1 + this.random.whole(2), true);
    });
    this.line(first ? '}' : `} while (${more});`);
  }

  /** An expression of a type. */
  private value(type: string, depth: number): string {
    const known = this.locals.filter((each) => each.type === type);
    if (known.length > 0 && this.random.chance(depth <= 0 ? 0.8 : 0.35)) return this.random.of(known).name;
    if (depth <= 0) return this.literal(type);
    const parsed = NAMED_TYPES.get(type);
    if (!parsed) throw new RangeError(`no type ${type}`);
    const ways: (() => string | undefined)[] = [
      () => this.literal(type),
      () => this.operation(type, parsed, depth),
      () => this.operation(type, parsed, depth),
      () => this.builtin(type, depth),
      () => this.builtin(type, depth),
      () => this.construct(type, parsed, depth),
      () => this.swizzle(parsed, depth),
      () => this.call(type, depth),
      () => `(${this.value('bool', depth - 1)} ? ${this.value(type, depth - 1)} : ${this.value(type, depth - 1)})`,
    ];
    return this.random.of(ways)() ?? this.literal(type);
  }

  private literal(type: string): string {
    switch (type) {
      case 'float':
        return this.random.of(['0.0', '1.0', '0.5', '2.5', '-3.0', '1e-3', '.25', '7.', '12.75', '1e6']);
      case 'int':
        return this.random.of(['0', '1', '2', '-5', '17', '0x1F']);
      case 'uint':
        return this.random.of(['0u', '1u', '3u', '0xFFu', '4000000000u']);
      case 'bool':
        return this.random.of(['true', 'false']);
    }
    const parsed = NAMED_TYPES.get(type);
    return parsed?.kind === 'matrix' || parsed?.kind === 'vector' ? `${type}(${this.literal(scalarOf(parsed) ?? 'float')})` : `${type}(0)`;
  }

  private operation(type: string, parsed: Type, depth: number): string | undefined {
    const scalar = scalarOf(parsed);
    const both = (operator: string, left = type, right = left): string =>
      `(${this.value(left, depth - 1)} ${operator} ${this.value(right, depth - 1)})`;
    if (type === 'bool') {
      const compared = this.random.of(['float', 'int', 'uint']);
      return this.random.of([
        () => both(this.random.of(['<', '>', '<=', '>=']), compared),
        () => both(this.random.of(['&&', '||', '^^'])),
        () => both(this.random.of(['==', '!=']), this.random.of(VALUES)),
        () => `(!${this.value('bool', depth - 1)})`,
      ])();
    }
    if (scalar === 'bool') return undefined;
    if (scalar === 'float') {
      if (parsed.kind === 'vector' && this.random.chance(0.2)) {
        const matrix = `mat${parsed.size}`;
        return this.random.chance(0.5) ? both('*', matrix, type) : both('*', type, matrix);
      }
      const right = parsed.kind === 'vector' && this.random.chance(0.3) ? 'float' : type;
      return this.random.chance(0.15) ? `(- ${this.value(type, depth - 1)})` : both(this.random.of(['+', '-', '*', '/']), type, right);
    }
    // Dividing by what may be 0, or shifting too far, has no result that devices agree on.
    const whole = scalar === 'uint' ? '3u' : '3';
    if (this.random.chance(0.25)) return `(${this.value(type, depth - 1)} ${this.random.of(['/', '%', '<<', '>>'])} ${whole})`;
    if (this.random.chance(0.15)) return `(~${this.value(type, depth - 1)})`;
    return both(this.random.of(['+', '-', '*', '&', '|', '^']));
  }

  private builtin(type: string, depth: number): string | undefined {
    const list = givers().get(type);
    if (!list) return undefined;
    const { name, parameters } = this.random.of(list);
    return `${name}(${parameters.map((each) => this.value(each, depth - 1)).join(', ')})`;
  }

  private construct(type: string, parsed: Type, depth: number): string | undefined {
    if (parsed.kind === 'scalar') return `${type}(${this.value(this.random.of(['float', 'int', 'uint', 'bool']), depth - 1)})`;
    if (parsed.kind === 'matrix') {
      const column = `vec${parsed.rows}`;
      return `${type}(${Array.from({ length: parsed.columns }, () => this.value(column, depth - 1)).join(', ')})`;
    }
    if (parsed.kind !== 'vector') return undefined;
    const parts: string[] = [];
    for (let left = parsed.size as number; left > 0;) {
      const size = 1 + this.random.whole(left);
      // A vector of one's own size alone would be no construction.
      const part = size === parsed.size ? 1 : size;
      parts.push(this.value(typeName(ofSize(parsed.scalar, part)), depth - 1));
      left -= part;
    }
    return `${type}(${parts.join(', ')})`;
  }

  private swizzle(parsed: Type, depth: number): string | undefined {
    if (parsed.kind !== 'vector' && parsed.kind !== 'scalar') return undefined;
    const size = 2 + this.random.whole(3);
    const scalar = scalarOf(parsed) ?? 'float';
    const letters = this.random.of(['xyzw', 'rgba', 'stpq']).slice(0, size);
    const picked = Array.from({ length: componentCount(parsed) }, () => this.random.of([...letters])).join('');
    const source = this.value(typeName(ofSize(scalar, size)), depth - 1);
    const simple = /^\w+$/.test(source) || /^\w+\([^()]*\)$/.test(source);
    return `${simple ? source : `(${source})`}.${picked}`;
  }

  private call(type: string, depth: number): string | undefined {
    const fitting = this.helpers.filter(({ result }) => result === type);
    if (fitting.length === 0) return undefined;
    const { name, parameters } = this.random.of(fitting);
    return `${name}(${parameters.map((each) => this.value(each, depth - 1)).join(', ')})`;
  }
}
