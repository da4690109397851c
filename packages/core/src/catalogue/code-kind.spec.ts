import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { resolveGraph } from '../compile/resolve';
import { materialOf } from '../testing/graphs';
import { codeKind, FIRST_CODE } from './code-kind';
import type { NodeKind } from './kind';
import { library } from './library';

function kindOf(text?: string): NodeKind {
  const made = codeKind(text);
  if (!('kind' in made)) throw new Error(made.problem.message);
  return made.kind;
}

function problemOf(text: string): string {
  const made = codeKind(text);
  return 'problem' in made ? `${made.problem.line}:${made.problem.column} ${made.problem.message}` : '';
}

function withCode(codes: Record<string, string>): ReturnType<typeof materialOf> {
  const nodes = Object.fromEntries(Object.keys(codes).map((id) => [id, 'code']));
  const [first = '', ...rest] = Object.keys(codes);
  const material = materialOf({ ...nodes, sum: 'add' }, { 'sum.a': first, ...(rest[0] ? { 'sum.b': rest[0] } : {}), 'dock.colour': 'sum' });
  const coded = Object.entries(material.surface.nodes).map(([id, node]) => [id, { ...node, code: codes[id] }]);
  return { ...material, surface: { ...material.surface, nodes: Object.fromEntries(coded) as typeof material.surface.nodes } };
}

describe('A code node', () => {
  it('has the inlets and the outlet of the last function', () => {
    const kind = kindOf(
      'float halved(float a) { return a * 0.5; }\nvec3 shade(vec3 baseColour, float edgeWidth, vec2 at) { return baseColour * halved(edgeWidth) * at.x; }',
    );
    expect(kind.inlets.map(({ name, label, meaning }) => [name, label, meaning])).toEqual([
      ['baseColour', 'Base colour', 'colour'],
      ['edgeWidth', 'Edge width', 'number'],
      ['at', 'At', 'uv'],
    ]);
    expect(kind.outlets.map(({ name }) => name)).toEqual(['result']);
    expect(kindOf().inlets.map(({ name }) => name)).toEqual(['colour', 'amount']);
  });

  it('has an outlet for each field of a struct, and gives light as light', () => {
    const split = kindOf('struct Two { float near; vec3 colour; };\nTwo both(float a) { return Two(a, vec3(a)); }');
    expect(split.outlets.map(({ name, meaning }) => [name, meaning])).toEqual([
      ['near', 'number'],
      ['colour', 'colour'],
    ]);
    expect(kindOf('Lit mine(vec3 colour) { return emitted(colour); }').outlets[0]?.meaning).toBe('light');
  });

  it('calls the library, and compiles beside another of the same names', () => {
    const [one, other] = [
      'vec3 mine(vec3 tint) { return tint * gradientNoise(surfacePosition(), 3.0); }',
      'vec3 mine(vec3 tint) { return tint + surfaceNormal(); }',
    ];
    const { problems, compiled } = compileFor(GLSL_TARGET, withCode({ one, other }));
    expect(problems).toEqual([]);
    const { text } = compiled!.program.fragment;
    expect(text.match(/vec3 mine_\w+\(vec3 tint\)/g)?.length).toBe(2);
  });

  it('may be written in WGSL, beside another in GLSL', () => {
    const kind = kindOf(
      'fn halved(a: f32) -> f32 { return a * 0.5; }\nfn shade(tint: vec3f, edge: f32) -> vec3f { return tint * halved(edge); }',
    );
    expect(kind.inlets.map(({ name, label, meaning }) => [name, label, meaning])).toEqual([
      ['tint', 'Tint', 'colour'],
      ['edge', 'Edge', 'number'],
    ]);
    const both = {
      one: 'fn mine(tint: vec3f) -> vec3f { return tint * surfaceNormal(); }',
      other: 'vec3 mine(vec3 tint) { return tint + surfaceNormal(); }',
    };
    const { problems, compiled } = compileFor(GLSL_TARGET, withCode(both));
    expect(problems).toEqual([]);
    expect(compiled!.program.fragment.text.match(/vec3 mine_\w+\(vec3 tint\)/g)?.length).toBe(2);
    expect(problemOf('fn mine(a: f32) -> f32 { return smoothstp(0.0, 1.0, a); }')).toMatch(/^1:33 .*smoothstp/);
  });

  it('is offered only mends that mend', () => {
    const mendsOf = (text: string): string[] => {
      const made = codeKind(text);
      return 'problem' in made ? (made.problem.mends ?? []).map(({ label }) => label) : [];
    };
    expect(mendsOf('float mine(float a) { return smoothstp(0.0, 1.0, a); }')).toEqual(['Write “smoothstep”']);
    // The nearest name takes something else.
    expect(mendsOf('float mine(float a) { return smoothstp(a); }')).toEqual([]);
  });

  it('keeps its own structs apart too, and runs at the vertices', () => {
    const text = 'struct Pair { vec3 a; float b; };\nPair mine(float x) { return Pair(surfacePosition() * x, x); }';
    const other =
      'struct Pair { float a; };\nfloat mine(float x) { Pair p = Pair(x + surfaceFacing(surfaceNormal(), surfaceToEye())); return p.a; }';
    const plain = withCode({ one: text, other });
    const graph = {
      ...plain.surface,
      ribbons: {
        'sum.a': { from: 'one', outlet: 'a' },
        'sum.b': { from: 'other', outlet: 'result' },
        'dock.offset': { from: 'sum', outlet: 'result' },
      },
    };
    const { problems, compiled } = compileFor(GLSL_TARGET, { ...plain, surface: graph });
    expect(problems).toEqual([]);
    expect(compiled!.program.vertex.text.match(/struct Pair_\w+/g)?.length).toBe(2);
  });

  it('may use names that the library has, and one name for two things', () => {
    const material = withCode({
      own: 'vec3 surfaceNormal() { return vec3(0.5); }\nvec3 mine(vec3 mine) { return mine + surfaceNormal() * surfacePosition(); }',
    });
    const { problems, compiled } = compileFor(GLSL_TARGET, material);
    expect(problems).toEqual([]);
    expect(compiled!.program.fragment.text).toMatch(/surfaceNormal_\w+\(\) \{\s+return vec3\(0\.5\)/);
  });

  const wrong: readonly (readonly [string, RegExp])[] = [
    ['', /1:1 Write a function/],
    ['float mine(float a) { return a; ', /expected|Expected|end/],
    ['float mine(float a) {\n  return sine(a);\n}', /2:10 There is no function "sine"/],
    ['float mine(mat3 m) { return 1.0; }', /“m” cannot become an inlet/],
    ['float mine(out float a) { a = 1.0; return 1.0; }', /“a” cannot become an inlet/],
    ['void mine(float a) { }', /must give/],
  ];
  for (const [text, words] of wrong) {
    it(`says what is wrong: ${text.slice(0, 40).replace(/\s+/g, ' ')}`, () => {
      expect(problemOf(text)).toMatch(words);
    });
  }

  it('that cannot be read is a problem at its node, with line, column and the nearest right name', () => {
    const { problems } = resolveGraph(withCode({ bad: 'float mine(float a) {\n  return smoothstp(0.0, 1.0, a);\n}' }), library());
    expect(problems[0]?.node).toBe('bad');
    expect(problems[0]?.message).toMatch(/^Line 2, column 10: .*smoothstp.*To mend: Write “smoothstep”\.$/);
  });

  it('keeps its ports while only its inside is wrong', () => {
    const made = codeKind('vec3 glow(vec3 tint, float edge) { return smoothstp(tint); }');
    expect('ports' in made && made.ports?.inlets.map(({ name }) => name)).toEqual(['tint', 'edge']);
    expect('ports' in made && made.ports?.outlets.length).toBe(1);
    const broken = codeKind('vec3 glow(mat3 m) { return 1.0; }');
    expect('problem' in broken && broken.ports).toBeUndefined();
  });

  it('is made once for the same text', () => {
    expect(kindOf(FIRST_CODE)).toBe(kindOf(FIRST_CODE));
  });
});
