import type { Material } from '@brelvin/contract';
import { compileMaterial } from '../../compile/compile-material';
import { MOST_CARRIED, MOST_IMAGES } from '../../compile/limits';
import { PORTABLE_LIMITS, type Limits } from '../../ir/limits';
import { DEMO_DOCUMENTS } from '../../demo/demo-documents';
import { demoLibrary } from '../../demo/demo-library';
import { plainVertexModule } from '../../compile/surface-programs';
import { libraryProgram } from '../../catalogue/library';
import { linkProgram } from '../../ir/program';
import { elaborate, originOfLine } from '../../language';
import { codeFor } from '../target';
import { GLSL_TARGET } from './target';

function emitFragment(code: string): string {
  const vertex = libraryProgram('full_screen.vert');
  const { module, diagnostics } = elaborate('test.frag', code);
  expect(diagnostics).toEqual([]);
  return codeFor(GLSL_TARGET, linkProgram(vertex, module)).fragment.text;
}

describe('GLSL ES 3.00', () => {
  it('leaves out what main does not reach', () => {
    const text = emitFragment(
      'out vec4 pixel; uniform A { vec4 used; }; uniform B { vec4 idle; }; float unused() { return 1.0; } void main() { pixel = used; }',
    );
    expect(text).toContain('uniform A');
    expect(text).not.toContain('uniform B');
    expect(text).not.toContain('unused');
  });

  it('keeps "continue" from skipping the step of a loop', () => {
    const text = emitFragment(
      'out vec4 pixel; void main() { float sum = 0.0; for (int i = 0; i < 4; i++) { if (i == 1) continue; sum += 1.0; } pixel = vec4(sum); }',
    );
    expect(text).toMatch(/for \(; i < 4; i = i \+ 1\) \{/);
  });

  it('counts rows from the top', () => {
    const text = emitFragment('out vec4 pixel; void main() { pixel = gl_FragCoord + dFdy(gl_FragCoord); }');
    expect(text).toContain('deviceFragCoord()');
    expect(text).toContain('* (-deviceTarget.x)');
  });

  it('hands on from the vertex stage only what pixels read', () => {
    const { vertex } = codeFor(GLSL_TARGET, linkProgram(plainVertexModule('surface.vert'), libraryProgram('not_ready.frag')));
    expect(vertex.text).toContain('out vec3 worldNormal');
    expect(vertex.text).not.toContain('meshPlace');
    expect(vertex.text).not.toContain('copyNumber');
  });

  it('remembers what each line was made of', () => {
    const code = 'out vec4 pixel;\nvoid main() {\n  float a = 1.0;\n  pixel = vec4(a);\n}';
    const { module } = elaborate('mine.frag', code);
    const { fragment } = codeFor(GLSL_TARGET, linkProgram(libraryProgram('full_screen.vert'), module));
    const line = fragment.text.split('\n').findIndex((each) => each.includes('pixel = vec4(a)')) + 1;
    const origin = originOfLine(fragment, line);
    expect(origin?.path).toBe('mine.frag');
    expect(code.slice(origin?.range?.from, origin?.range?.to)).toBe('pixel = vec4(a)');
  });

  it('says which program has no main', () => {
    expect(() => linkProgram(libraryProgram('full_screen.vert'), elaborate('x', 'float f() { return 1.0; }').module)).toThrowError(
      /main\(\)/,
    );
  });

  it('offers what every material may use', () => {
    for (const what of Object.keys(PORTABLE_LIMITS) as (keyof Limits)[]) {
      expect(GLSL_TARGET.limits[what]).withContext(what).toBeGreaterThanOrEqual(PORTABLE_LIMITS[what]);
    }
  });

  for (const { id, document } of DEMO_DOCUMENTS.filter((each) => each.document.format === 'brelvin-material')) {
    it(`has room for what a material may bring along, in every program of ${id}`, () => {
      const { compiled } = compileMaterial(document as Material, demoLibrary(), { variants: ['shadowed', 'occluded', 'inspect', 'wires'] });
      const programs = [compiled!.program, ...Object.values(compiled!.variants)];
      expect(programs.length).toBeGreaterThan(4);
      for (const { fragment } of programs) {
        const own = fragment.inputs.filter(({ name }) => !name.startsWith('carried'));
        const system = fragment.samplers.filter(({ name }) => !name.startsWith('image'));
        expect(own.length).toBeLessThanOrEqual(PORTABLE_LIMITS.varyings - MOST_CARRIED);
        expect(system.length).toBeLessThanOrEqual(PORTABLE_LIMITS.textures - MOST_IMAGES);
      }
    });
  }
});
