import { library } from '../catalogue/library';
import { Computing } from '../fuzz/computing';
import { Random } from '../fuzz/random';
import { elaborate, type ElaboratedSource } from './index';

const OPTIONS = { advice: true, names: { mark: 'mine' } };
let paths = 0;

/** Reads texts one after the other as one text that changes, and each as if nothing had been read before. */
function readBoth(texts: readonly string[]): (readonly [ElaboratedSource, ElaboratedSource])[] {
  const path = `text ${paths++}`;
  const fresh = (text: string): ElaboratedSource => elaborate(path, text, { ...library().module }, OPTIONS);
  return texts.map((text) => [elaborate(path, text, library().module, OPTIONS), fresh(text)] as const);
}

/** What was read, with all places in the text; but for those where the structs stand whose values it computes with. */
function told({ diagnostics, own, module }: ElaboratedSource): unknown {
  const functions = own.map((signature) => module.functions.get(signature));
  const withoutPlace = (key: string, value: unknown): unknown =>
    key === 'type' && (value as { kind: string }).kind === 'struct' ? { ...(value as object), origin: undefined } : value;
  return { diagnostics, own: JSON.parse(JSON.stringify(functions, withoutPlace)) as unknown };
}

/** Texts as somebody types them into one function of several. */
function typed(seed: number): string[] {
  const random = new Random(seed);
  const functions = Array.from({ length: 4 }, (_, index) => new Computing(new Random(seed * 10 + index), `f${index}`).program().text);
  const whole = functions.join('\n');
  return Array.from({ length: 8 }, () => {
    const at = random.whole(whole.length);
    return whole.slice(0, at) + random.of(['x', ';', '}', '1', ' + 1', '\n', '/* */', '']) + whole.slice(at + random.whole(2));
  });
}

describe('Bodies that were read before', () => {
  it('are what they would be if they were read again, wherever something is typed', () => {
    for (let seed = 0; seed < 25; seed++)
      for (const [again, fresh] of readBoth(typed(seed))) expect(told(again)).withContext(`seed ${seed}`).toEqual(told(fresh));
  });

  it('are taken where only another function changed, and read where what they use did', () => {
    const text = (constant: string, other: string): string =>
      `const float K = ${constant};\nfloat a(float x) { return x + ${other}; }\nfloat b(float x) { return x * K; }\n`;
    const [one, two, three] = readBoth([text('1.0', '2.0'), text('1.0', '22.0'), text('3.0', '22.0')]).map(
      ([{ module, own }]) => module.functions.get(own[1]!)!.body,
    );
    expect(two).not.toBe(one);
    expect((two![0] as { value: unknown }).value).toBe((one![0] as { value: unknown }).value);
    expect((three![0] as { value: unknown }).value).not.toBe((one![0] as { value: unknown }).value);
  });

  it('are read again where macros, other types or other functions come to mean something else', () => {
    const changes = [
      [
        'float a(float x) { return f(x); }\nfloat f(float x) { return x; }',
        'float a(float x) { return f(x); }\nfloat f(vec2 x) { return x.x; }',
      ],
      ['#define F 1.0\nfloat a() { return F; }', '#define F 2.0\nfloat a() { return F; }'],
      [
        'float a() { float x = 1.0; return x; }\nint b() { return __LINE__; }',
        'float a() { float x = 1.0;\n\n return x; }\nint b() { return __LINE__; }',
      ],
      ['struct S { float k; };\nfloat a(S s) { return s.k; }', 'struct S { float j; };\nfloat a(S s) { return s.k; }'],
      ['fn a(x: f32) -> f32 { return x * k; }\nconst k = 2.0;', 'fn a(x: f32) -> f32 { return x * k; }\nconst k = 3.0;'],
      [
        'fn a(x: f32) -> f32 { return b(x); }\nfn b(x: f32) -> f32 { return x; }',
        'fn a(x: f32) -> f32 { return b(x); }\nfn b(x: i32) -> f32 { return 1.0; }',
      ],
    ];
    for (const texts of changes)
      for (const [again, fresh] of readBoth([...texts, ...texts])) expect(told(again)).withContext(texts[0]!).toEqual(told(fresh));
  });

  it('come round to themselves through what is typed into another one', () => {
    const rounds: readonly (readonly string[])[] = [
      [
        'float b();\nfloat a() { return b(); }\nfloat b() { return 1.0; }',
        'float b();\nfloat a() { return b(); }\nfloat b() { return a(); }',
      ],
      ['fn a() -> f32 { return b(); }\nfn b() -> f32 { return 1.0; }', 'fn a() -> f32 { return b(); }\nfn b() -> f32 { return a(); }'],
    ];
    for (const texts of rounds) {
      const said = readBoth(texts).map((both) => both.map(({ diagnostics }) => diagnostics.map(({ message }) => message)));
      expect(said[0]).toEqual([[], []]);
      for (const each of said[1]!) expect(each[0]).toContain('calls itself, directly or through another function');
      expect(said[1]![0]).toEqual(said[1]![1]);
    }
  });

  it('are read again where the Library has what was missing', () => {
    const text = 'float a(float x) { return glow(x); }';
    const said = (names: readonly string[]): string | undefined =>
      elaborate('missing', text, library().module, { ...OPTIONS, importer: { names, import: () => ({ problem: '' }) } }).diagnostics[0]
        ?.message;
    expect(said([])).toBe('There is no function "glow".');
    expect(said(['glow'])).toContain('is a function of the Library that is not imported here');
  });
});
