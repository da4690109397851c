import { functionDiagnostics } from '../assist/coded-text';
import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { materialOf } from '../testing/graphs';
import { FunctionLibrary, functionKindId, importerOf, libraryWith, type FunctionTexts } from './function-library';
import { library } from './library';

const texts = (entries: Record<string, string>): FunctionTexts => new Map(Object.entries(entries).map(([name, text]) => [name, { text }]));

describe('Functions of the Library', () => {
  it('are kinds of nodes, with the words of their comment', () => {
    const { kinds } = libraryWith(
      texts({
        dusk: `/**
 * Dusk tint: colours towards evening.
 * @family Colour
 * @inlet amount fraction "How late" = 0.5 in 0..1: 0 is noon.
 */
vec3 dusk(vec3 colour, float amount) { return colour * amount; }`,
      }),
      library(),
    );
    const kind = kinds.get(functionKindId('dusk'));
    expect(kind?.title).toBe('Dusk tint');
    expect(kind?.help).toBe('Colours towards evening.');
    expect(kind?.inlets.map(({ name, label, high }) => [name, label, high])).toEqual([
      ['colour', 'Colour', undefined],
      ['amount', 'How late', 1],
    ]);
  });

  it('compile as nodes, helpers and all', () => {
    const workspace = libraryWith(
      texts({ lift: 'float twice(float x) { return x * 2.0; }\nvec3 lift(vec3 colour) { return colour + twice(surfacePosition().x); }' }),
      library(),
    );
    const material = materialOf({ lift: functionKindId('lift') }, { 'dock.colour': 'lift' });
    const { problems, compiled } = compileFor(GLSL_TARGET, material, workspace);
    expect(problems).toEqual([]);
    expect(compiled?.program.fragment.text).toContain('twice_lift');
  });

  it('are offered only mends that mend', () => {
    const mends = (text: string): string[] =>
      functionDiagnostics('soft', text).flatMap((each) => (each.mends ?? []).map(({ label }) => label));
    expect(mends('float soft(float a) { return smoothstp(0.0, 1.0, a); }')).toEqual(['Write “smoothstep”']);
    expect(mends('float soft(float a) { return smoothstp(a); }')).toEqual([]);
  });

  it('tell of circles, with the way round', () => {
    const found = new FunctionLibrary(
      texts({ a: 'import b;\nfloat a(float x) { return b(x); }', b: 'import a;\nfloat b(float x) { return a(x); }' }),
      library(),
    );
    const { diagnostics, imported } = found.read('a');
    expect(imported).toBeUndefined();
    expect(diagnostics[0]?.message).toContain('a → b → a');
  });

  it('go on working under a former name', () => {
    const found = new FunctionLibrary(
      new Map([['fresh', { text: 'float fresh(float x) { return x; }', formerNames: ['stale'] }]]),
      library(),
    );
    expect('visible' in found.import('stale')).toBeTrue();
    expect(found.kinds().has(functionKindId('stale'))).toBeTrue();
  });

  it('go on working while they are renamed in their own text, as kinds and by import', () => {
    const typed = texts({
      glow: 'float helper(float x) { return x; }\nfloat glo(float x) { return helper(x); }',
      user: 'import glow;\nfloat user(float x) { return glow(x); }',
    });
    const found = new FunctionLibrary(typed, library());
    const { called, diagnostics } = found.read('glow');
    expect(called).toBe('glo');
    expect(diagnostics.map(({ severity, message }) => [severity, message.slice(0, 46)])).toEqual([
      ['warning', 'It is called "glo" here and "glow" in the Libr'],
    ]);
    expect(found.read('user').imported).toBeDefined();
    const workspace = libraryWith(typed, library());
    const material = materialOf({ a: functionKindId('glow'), b: functionKindId('user') }, { 'b.x': 'a', 'dock.colour': 'b' });
    expect(compileFor(GLSL_TARGET, material, workspace).problems).toEqual([]);
    expect(found.read('user').called).toBe('user');
  });

  it('are read again only when they, or what they import, changed', () => {
    const one = { base: 'float base(float x) { return x; }', top: 'import base;\nfloat top(float x) { return base(x); }' };
    const first = new FunctionLibrary(texts(one), library()).read('top');
    expect(new FunctionLibrary(texts(one), library()).read('top')).toBe(first);
    const other = { ...one, base: 'float base(float x) { return x + 1.0; }' };
    expect(new FunctionLibrary(texts(other), library()).read('top')).not.toBe(first);
  });

  const wrong: readonly (readonly [string, string, RegExp])[] = [
    ['broken', 'float broken(float x) { return y; }', /"broken" cannot be used: line 1 of it says: Nothing here is called "y"/],
    ['nothing', '', /function called "nothing"/],
  ];
  for (const [name, text, words] of wrong) {
    it(`say why they cannot be used: ${name}`, () => {
      const found = new FunctionLibrary(texts({ [name]: text }), library()).import(name);
      expect('problem' in found && found.problem).toMatch(words);
    });
  }

  it('are not there without a workspace', () => {
    expect(importerOf(library()).import('x')).toEqual({ problem: 'There is no function "x" in the Library.' });
  });
});
