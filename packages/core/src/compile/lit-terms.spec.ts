import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import { library } from '../catalogue/library';
import { elaborate } from '../language';
import type { StructType } from '../ir/types';
import { materialOf } from '../testing/graphs';
import { LitTerms } from './lit-terms';
import { resolveGraph } from './resolve';

const lit = library().module.structs.get('Lit') as StructType;

/** The terms that `Lit f()` may give, written in shading code on top of the library. */
function termsOf(body: string, before = ''): string[] {
  const { module, diagnostics } = elaborate('test', `${before}\nLit f() { ${body} }`, library().module);
  expect(diagnostics).toEqual([]);
  return new LitTerms(lit, module.functions).of(module.functions.get('f()')!);
}

describe('Terms of a light', () => {
  it('are those that a lighting function sets', () => {
    const terms = (kind: string): string[] => {
      const overload = library().kinds.get(kind)!.overloads[0]!;
      return new LitTerms(lit, library().module.functions).of(overload);
    };
    expect(terms('lambert')).toEqual(['ambient', 'diffuse']);
    expect(terms('blinnPhong')).toEqual(['ambient', 'diffuse', 'specular']);
    expect(terms('rim')).not.toContain('transmission');
  });

  it('go through sums, products and mixtures', () => {
    expect(termsOf('return darkness();')).toEqual([]);
    expect(termsOf('return addValues(emitted(vec3(1.0)), lambert(vec3(1.0), vec3(0.0, 1.0, 0.0)));')).toEqual([
      'ambient',
      'diffuse',
      'emission',
    ]);
    expect(termsOf('return multiplyValues(emitted(vec3(1.0)), 0.5);')).toEqual(['emission']);
    expect(termsOf('return mixValues(emitted(vec3(1.0)), darkness(), 0.5);')).toEqual(['emission']);
    expect(termsOf('return multiplyValues(darkness(), vec3(2.0));')).toEqual([]);
  });

  it('follow locals, branches and loops', () => {
    expect(termsOf('Lit a = darkness(); a.specular.x = 1.0; return a;')).toEqual(['specular']);
    expect(termsOf('Lit a = darkness(); if (frameTime > 1.0) { a = emitted(vec3(1.0)); } return a;')).toEqual(['emission']);
    expect(
      termsOf('Lit a = darkness(); Lit b = darkness(); for (int i = 0; i < 2; i++) { a = b; b.diffuse = vec3(1.0); } return a;'),
    ).toEqual(['diffuse']);
    expect(termsOf('return frameTime > 1.0 ? emitted(vec3(1.0)) : darkness();')).toEqual(['emission']);
  });

  it('err on the safe side where a light is written through a parameter', () => {
    const before = 'Lit fill(inout Lit a) { a.emission = vec3(1.0); return a; }';
    expect(termsOf('Lit a = darkness(); return fill(a);', before).length).toBe(6);
  });

  it('are all that a program adds up', () => {
    const program = (kind: string): string =>
      compileFor(GLSL_TARGET, materialOf({ n: kind }, { 'dock.colour': 'n' })).compiled!.program.fragment.text;
    expect(program('lambert')).toContain('return lit.ambient + lit.diffuse;');
    expect(program('colour')).toContain('return lit.emission;');
  });

  it('stay apart through nodes that only pass on what they were given', () => {
    for (const [kind, inlets] of [
      ['choose', ['a', 'b']],
      ['mix', ['a', 'b']],
      ['add', ['a', 'b']],
    ] as const) {
      const [a, b] = inlets;
      const graph = materialOf(
        { one: 'lambert', other: 'rim', passed: kind },
        { [`passed.${a}`]: 'one', [`passed.${b}`]: 'other', 'dock.colour': 'passed' },
      );
      const resolved = resolveGraph(graph, library());
      expect(resolved.problems).withContext(kind).toEqual([]);
      expect(resolved.nodes.get('passed')?.outlets['result']).withContext(kind).toBe('light');
      const text = compileFor(GLSL_TARGET, graph).compiled!.program.fragment.text;
      expect(/vec3 surfaceLight[^]*?return ([^;]*);/.exec(text)?.[1])
        .withContext(kind)
        .toBe('(lit.ambient + lit.diffuse) + lit.emission');
    }
  });

  it('stay apart where they are weighed', () => {
    const { compiled } = compileFor(GLSL_TARGET, materialOf({ n: 'lambert' }, { 'dock.colour': 'n' }), undefined, {
      variants: ['inspect'],
    });
    expect(compiled!.variants.inspect!.fragment.text).toContain('lit.transmission * ');
  });
});
