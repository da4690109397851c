import { library } from '../catalogue/library';
import { libraryWith } from '../catalogue/function-library';
import { withEdits } from '../language';
import { completionsAt, definitionAt, helpAt, renamable, renameAt } from './assist';
import { forkOf } from './fork';

const MATERIAL = { role: 'material' } as const;
const TEXT = `/** Gloss: how sharp the spot is. @value 32 in 1..256 */
uniform float gloss;

float twice(float x) { return x * 2.0; }

Lit paint(Surface s) {
  vec3 n = normalize(s.normal);
  float amount = twice(gloss);
  return blinnPhong(vec3(0.5), vec3(0.2), amount, n, s.toEye);
}
`;
const at = (words: string, inside = 0): number => TEXT.indexOf(words) + inside;
const labels = (text: string, offset = text.length): string[] =>
  (completionsAt(text, MATERIAL, offset)?.options ?? []).map(({ label }) => label);

describe('Completion', () => {
  it('offers what can be named at the place: variables, parameters, functions, built-ins', () => {
    const found = labels(TEXT, at('amount, n'));
    expect(found).toEqual(jasmine.arrayContaining(['n', 'amount', 's', 'gloss', 'twice', 'blinnPhong', 'smoothstep', 'vec3', 'return']));
    expect(labels(TEXT, at('float twice'))).not.toContain('amount');
  });

  it('offers members behind a dot, also in code that is not finished', () => {
    expect(labels('vec4 paint(Surface s) { vec3 c = s.')).toEqual(jasmine.arrayContaining(['normal', 'toEye', 'uv2']));
    expect(labels(TEXT, at('s.normal', 2))).toContain('position');
    const unfinished = TEXT.replace('return blinn', 'n. \n  return blinn');
    expect(labels(unfinished, unfinished.indexOf('n. ') + 2)).toEqual(jasmine.arrayContaining(['x', 'xyz', 'rgb']));
  });

  it('offers the functions of the Library behind import', () => {
    const workspace = libraryWith(new Map([['soft', { text: 'float soft(float x) { return x; }' }]]), library());
    expect(completionsAt('import ', MATERIAL, 7, workspace)?.options.map(({ label }) => label)).toEqual(['soft']);
  });

  it('says nothing in comments', () => {
    expect(completionsAt('// smoo', MATERIAL, 7)).toBeUndefined();
  });
});

describe('Help on a name', () => {
  it('gives signature, meaning and source of a built-in', () => {
    const help = helpAt(TEXT, MATERIAL, at('normalize', 3));
    expect(help?.signatures[0]).toBe('vec3 normalize(vec3)');
    expect(help?.help).toContain('1 long');
    expect(help?.source).toContain('8.5');
  });

  it('gives those of the shader library, and where it is written', () => {
    const help = helpAt(TEXT, MATERIAL, at('blinnPhong', 2));
    expect(help?.help).toContain('Matte light');
    expect(help?.source).toContain('Blinn 1977');
    expect(help?.declared?.path).toBe('light/blinn_phong.glsl');
    const plain = 'vec4 paint(Surface s) { return vec4(float(lightsInUse())); }';
    expect(helpAt(plain, MATERIAL, plain.indexOf('lightsInUse'))?.help).toBe('How many lights lighting sums over.');
  });

  it('gives the words of a parameter’s comment', () => {
    expect(helpAt(TEXT, MATERIAL, at('gloss)'))?.help).toBe('How sharp the spot is.');
  });
});

describe('Definition and renaming', () => {
  it('lead to where a name is declared', () => {
    expect(definitionAt(TEXT, MATERIAL, at('twice(gloss'))?.range?.from).toBe(at('twice(float'));
    expect(definitionAt(TEXT, MATERIAL, at('amount, n'))?.range?.from).toBe(at('amount = '));
  });

  it('changes all places of one name and no other', () => {
    const shadowed = 'vec4 paint(Surface s) { float a = 1.0; { float a = 2.0; a += 1.0; } return vec4(a); }';
    const made = renameAt(shadowed, MATERIAL, shadowed.lastIndexOf('a)'), 'outer');
    expect('edits' in made && withEdits(shadowed, made.edits)).toBe(
      'vec4 paint(Surface s) { float outer = 1.0; { float a = 2.0; a += 1.0; } return vec4(outer); }',
    );
    expect(renamable(TEXT, MATERIAL, at('gloss;'))?.places.length).toBe(2);
  });

  for (const [wanted, words] of [
    ['float', /word of the language/],
    ['2nd', /begins with a letter/],
    ['amount', /used in this text/],
  ] as const)
    it(`refuses the name ${wanted}`, () => {
      const made = renameAt(TEXT, MATERIAL, at('n = '), wanted);
      expect('problem' in made && made.problem).toMatch(words);
    });

  it('does not rename what is declared elsewhere', () => {
    const made = renameAt(TEXT, MATERIAL, at('blinnPhong', 1), 'mine');
    expect('problem' in made && made.problem).toContain('from elsewhere');
  });
});

describe('A fork', () => {
  it('is a copy with its comment under a name of its own, without what made it a kind', () => {
    const text =
      '/**\n * Glow: a glow.\n * @kind glow 1\n */\nvec3 glow(vec3 c) {\n  return c * glowAmount();\n}\n\nfloat other(float x) { return x; }\n';
    const made = forkOf(text, text.indexOf('return c'), (wanted) => wanted);
    expect(made).toEqual({ name: 'myGlow', text: '/**\n * Glow: a glow.\n */\nvec3 myGlow(vec3 c) {\n  return c * glowAmount();\n}\n' });
  });

  it('says so where there is nothing to fork', () => {
    expect('problem' in forkOf('const float A = 1.0;', 0, (wanted) => wanted)).toBeTrue();
  });
});
