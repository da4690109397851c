import type { RandomFunction } from './well-typed';
import type { Random } from './random';

interface Local {
  readonly name: string;
  readonly type: 'int' | 'uint' | 'bool' | 'float';
}

const TYPES = ['int', 'uint', 'int', 'uint', 'bool', 'float', 'float'] as const;

/**
 * Writes functions of random statements whose result the standard leaves no choice about: whole numbers that wrap, loops, arrays,
 * structs, `switch`, and expressions that change something on the way. Nothing is divided by what may be 0, shifted too far,
 * or read and changed in one expression. Floats are eighths from −512 to 512, so that no operation on them is rounded.
 */
export class Computing {
  private locals: Local[] = [];
  private lines: string[] = [];
  private indent = 1;
  private count = 0;
  /** Loops round what is written. */
  private loops = 0;
  private budget = 0;
  /** Whether the array and the struct can be named. */
  private ready = false;

  /** @param prefix begins all names, so that several may stand in one text */
  constructor(
    private readonly random: Random,
    private readonly prefix: string,
  ) {}

  /** `uvec4 NAME(uint seed)`, with what it needs. */
  program(): RandomFunction {
    const name = `${this.prefix}main`;
    this.locals = [{ name: 'seed', type: 'uint' }];
    this.budget = 14;
    this.line(`int list[4] = int[](${[0, 1, 2, 3].map(() => this.value('int', 1)).join(', ')});`);
    this.line(`${this.prefix}S kept = ${this.prefix}S(${this.value('uint', 1)}, ivec2(${this.value('int', 1)}, 3));`);
    this.ready = true;
    this.statements(4 + this.random.whole(5), false);
    const sum = 'uint(list[0] ^ list[1]) + uint(list[2] - list[3])';
    const values = [
      sum,
      'kept.a + uint(kept.b.x * kept.b.y)',
      this.value('uint', 3),
      `uint(${this.value('int', 3)}) + uint(abs(${this.exact()}) * 8.0)`,
    ];
    this.line(`return uvec4(${values.join(', ')});`);
    const struct = `struct ${this.prefix}S { uint a; ivec2 b; };\n`;
    const helper = `int ${this.prefix}twice(inout int n, uint m) { n += int(m); return n * 2; }\n`;
    const eighths = `float ${this.prefix}eighths(float x) { return clamp(floor(x * 8.0) * 0.125, -512.0, 512.0); }\n`;
    return { name, text: `${struct}${helper}${eighths}uvec4 ${name}(uint seed) {\n${this.lines.join('\n')}\n}\n` };
  }

  private line(text: string): void {
    this.lines.push(`${'  '.repeat(this.indent)}${text}`);
  }

  private inside(work: () => void): void {
    const before = this.locals;
    this.indent++;
    work();
    this.indent--;
    this.locals = before;
  }

  private statements(count: number, inLoop: boolean): void {
    for (let each = 0; each < count && this.budget > 0; each++) {
      this.budget--;
      this.statement(inLoop);
    }
  }

  private statement(inLoop: boolean): void {
    const ways: readonly (() => void)[] = [
      () => this.declare(),
      () => this.declare(),
      () => this.assign(),
      () => this.assign(),
      () => this.line(`list[${this.value('uint', 1)} & 3u] ${this.random.of(['=', '+=', '^=', '-='])} ${this.value('int', 2)};`),
      () => this.line(`kept.${this.random.of(['b.x', 'b.y', 'b[1]'])} ${this.random.of(['=', '*=', '|='])} ${this.value('int', 2)};`),
      () => this.line(`kept.a ${this.random.of(['+=', '^=', '<<='])} ${this.random.chance(0.5) ? '3u' : '7u'};`),
      () => this.effect(),
      () => this.effect(),
      () => this.if(inLoop),
      // Three in one another may come to more steps than loops without a plain end have.
      ...(this.loops < 2 ? [() => this.for(), () => this.while()] : []),
      () => this.switch(inLoop),
      ...(inLoop ? [() => this.line(`if (${this.value('bool', 1)}) ${this.random.of(['break', 'continue'])};`)] : []),
    ];
    this.random.of(ways)();
  }

  private fresh(type: Local['type']): string {
    const name = `v${this.count++}`;
    this.locals = [...this.locals, { name, type }];
    return name;
  }

  private declare(): void {
    const type = this.random.of(TYPES);
    const value = type === 'float' ? this.exact() : this.value(type, 3);
    this.line(`${type} ${this.fresh(type)} = ${value};`);
  }

  private numbers(): Local[] {
    return this.locals.filter(({ type, name }) => (type === 'int' || type === 'uint') && name !== 'seed' && !name.startsWith('i'));
  }

  /** A float that later ones may be computed from without rounding. */
  private exact(depth = 2): string {
    return `${this.prefix}eighths(${this.value('float', depth)})`;
  }

  private assign(): void {
    const floats = this.locals.filter(({ type }) => type === 'float');
    if (floats.length > 0 && this.random.chance(0.4)) {
      const { name } = this.random.of(floats);
      this.line(`${name} = ${this.prefix}eighths(${name} ${this.random.of(['+', '-', '*'])} ${this.exact(1)});`);
      return;
    }
    const all = this.numbers();
    if (all.length === 0) return;
    const { name, type } = this.random.of(all);
    this.line(`${name} ${this.random.of(['=', '+=', '-=', '*=', '&=', '|=', '^='])} ${this.value(type, 2)};`);
  }

  /** An expression that changes something: a variable that nothing else in it reads. */
  private effect(): void {
    const all = this.numbers();
    if (all.length === 0) return;
    const changed = this.random.of(all);
    const { name, type } = changed;
    const before = this.locals;
    this.locals = before.filter((each) => each !== changed);
    const step = this.random.of([
      `${name}++`,
      `${name}--`,
      `++${name}`,
      `--${name}`,
      `(${name} += ${this.value(type, 1)})`,
      `(${name} = ${this.value(type, 1)})`,
    ]);
    const asInt = type === 'int' ? `(${step})` : `int(${step})`;
    const forms = [
      () => `list[${asInt} & 3] = ${this.value('int', 2)};`,
      () => `kept.b = ivec2(${this.value('int', 1)}, ${asInt});`,
      () => `kept.b.x = ${this.value('bool', 1)} ? ${asInt} : ${this.value('int', 1)};`,
      () => `if (${this.value('bool', 1)} && ${asInt} > 3) kept.a++;`,
      () => `if (${this.value('bool', 1)} || ${asInt} < 3) kept.a--;`,
      () => `kept.b.y = (${step}, ${this.value('int', 1)});`,
      ...(type === 'int' ? [() => `kept.b.x ^= ${this.prefix}twice(${name}, ${this.value('uint', 1)});`] : []),
    ];
    const text = this.random.of(forms)();
    this.locals = before;
    this.line(text);
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
    const index = `i${this.count++}`;
    this.line(
      `for (int ${index} = 0; ${index} < ${1 + this.random.whole(5)}; ${this.random.of([`${index}++`, `++${index}, kept.a += 2u`])}) {`,
    );
    this.loops++;
    this.inside(() => {
      this.locals = [...this.locals, { name: index, type: 'int' }];
      this.statements(1 + this.random.whole(2), true);
    });
    this.loops--;
    this.line('}');
  }

  private while(): void {
    const index = `i${this.count++}`;
    const first = this.random.chance(0.6);
    this.line(`int ${index} = ${2 + this.random.whole(4)};`);
    this.line(first ? `while (${index}-- > 0) {` : 'do {');
    this.loops++;
    this.inside(() => this.statements(1 + this.random.whole(2), true));
    this.loops--;
    this.line(first ? '}' : `} while (--${index} > 0);`);
  }

  private switch(inLoop: boolean): void {
    // SwiftShader loses pixels where “continue” follows a “switch” by a constant for which there is no case.
    this.line(`switch ((${this.value('int', 1)} + int(seed)) & 3) {`);
    const labels = [0, 1, 2, 3].filter(() => this.random.chance(0.7));
    const other = this.random.whole(labels.length + 1);
    [...labels.map((label) => `case ${label}:`)].forEach((label, at) => {
      if (at === other && this.random.chance(0.7)) this.line('default:');
      this.line(label);
      this.inside(() => {
        this.line('kept.b.x += 1;');
        this.statements(1, inLoop);
        if (this.random.chance(0.6)) this.line('break;');
      });
    });
    this.line('}');
  }

  private value(type: Local['type'], depth: number): string {
    const known = this.locals.filter((each) => each.type === type);
    if (known.length > 0 && this.random.chance(depth <= 0 ? 0.8 : 0.35)) return this.random.of(known).name;
    if (depth <= 0) return this.literal(type);
    const one = (of: Local['type'] = type): string => this.value(of, depth - 1);
    if (type === 'float') return this.float(depth - 1);
    if (type === 'bool') {
      const compared = this.random.of(['int', 'uint', 'float'] as const);
      return this.random.of([
        () => `(${one(compared)} ${this.random.of(['<', '>', '<=', '>=', '==', '!='])} ${one(compared)})`,
        () => `(${one()} ${this.random.of(['&&', '||', '^^', '=='])} ${one()})`,
        () => `(!${one()})`,
      ])();
    }
    const other = type === 'int' ? 'uint' : 'int';
    return this.random.of([
      () => `(${one()} ${this.random.of(['+', '-', '*', '&', '|', '^'])} ${one()})`,
      () => `(${one()} ${this.random.of(['+', '-', '*'])} ${one()})`,
      () => `(${one()} ${this.random.of(['<<', '>>'])} (${one('int')} & 31))`,
      () => `(${one()} ${this.random.of(['<<', '>>'])} (${one('uint')} & 31u))`,
      () => `(${one()} ${this.random.of(['<<', '>>'])} ${this.random.of(['1', '3u', '0x7', '011u'])})`,
      () => (type === 'uint' ? `(${one()} ${this.random.of(['/', '%'])} ${this.random.of(['3u', '7u', '0x10u'])})` : `(~${one()})`),
      () => `${type}(${one(other)})`,
      () => (type === 'int' ? `int(${this.exact(depth - 1)})` : `uint(abs(${this.exact(depth - 1)}))`),
      () => `(${one('bool')} ? ${one()} : ${one()})`,
      () => (!this.ready ? this.literal(type) : type === 'int' ? `list[${one('uint')} % 4u]` : 'kept.a'),
      () =>
        !this.ready
          ? this.literal(type)
          : type === 'int'
            ? this.random.of(['kept.b.x', 'kept.b[1]', 'list.length()'])
            : `${this.random.of(['min', 'max'])}(${one()}, ${one()})`,
    ])();
  }

  private float(depth: number): string {
    const one = (): string => this.value('float', depth);
    const exact = (): string => this.exact(depth);
    return this.random.of([
      () => `(${one()} ${this.random.of(['+', '-'])} ${one()})`,
      () => `(${exact()} * ${exact()})`,
      () => `(${exact()} ${this.random.of(['/', '*'])} ${this.random.of(['4.0', '0.5', '-8.0'])})`,
      () => `${this.random.of(['abs', 'floor', 'ceil', 'trunc', 'fract', 'sign', 'roundEven'])}(${exact()})`,
      () => `${this.random.of(['min', 'max', 'step'])}(${one()}, ${one()})`,
      () => `mod(${exact()}, ${this.random.of(['4.0', '0.5'])})`,
      () => `mix(${exact()}, ${exact()}, 0.5)`,
      () => `clamp(${one()}, -3.5, 7.25)`,
      () => `float(${this.value('int', depth)} & 1023)`,
      () => `float(${this.value('uint', depth)} & 255u)`,
      () => `dot(vec2(${exact()}, 0.5), vec2(1.5, ${exact()}))`,
      () => `(${this.value('bool', depth)} ? ${one()} : ${one()})`,
    ])();
  }

  private literal(type: Local['type']): string {
    if (type === 'float') return this.random.of(['0.0', '1.0', '-2.5', '0.125', '100.0', '.5', '3.', '1e2']);
    if (type === 'bool') return this.random.of(['true', 'false']);
    return type === 'int'
      ? this.random.of(['0', '1', '-5', '17', '0x1F', '010', '2147483647', '0xFFFFFFF0'])
      : this.random.of(['0u', '1u', '3u', '0xFFu', '4000000000u', '017u']);
  }
}
