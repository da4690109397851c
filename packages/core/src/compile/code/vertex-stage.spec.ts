import type { MaterialCode } from '@brelvin/contract';
import { compileMaterial } from '../compile-material';
import { newCodeMaterial } from './new-code';
import { SYSTEM_VARYINGS } from './system-names';
import { withVertexStage } from './vertex-stage';

const problemsOf = (code: MaterialCode): string[] => compileMaterial(newCodeMaterial('m', {}, code)).problems.map(({ message }) => message);

/** What a vertex stage is added to, with it. */
function code(text: string): MaterialCode {
  const added = withVertexStage({ text });
  if (typeof added === 'string') throw new Error(added);
  return added;
}

describe('A vertex stage that is added', () => {
  const reading = (...names: string[]): string => `${names.map((name) => `in ${SYSTEM_VARYINGS[name]!.type} ${name};`).join('\n')}
out vec4 pixel;

void main() {
  vec3 sum = vec3(0.0); // position stays a word here
  ${names.map((name) => `sum += vec3(${name}.x);`).join('\n  ')}
  pixel = vec4(sum, 1.0);
}
`;

  it('never breaks the program, whatever the pixel stage reads, as far as it can be handed on', () => {
    for (const names of [
      ['position', 'normal', 'tangent', 'uv'],
      ['uv', 'uv2', 'colour', 'position'],
    ]) {
      const text = reading(...names);
      expect(problemsOf({ text })).toEqual([]);
      const added = code(text);
      expect(problemsOf(added)).toEqual([]);
      expect(added.text).toContain('// position stays a word here');
      for (const name of names) expect(added.vertices).toContain(`${name}Out = `);
    }
  });

  it('says why there can be none where too much is read', () => {
    const all = Object.keys(SYSTEM_VARYINGS);
    expect(withVertexStage({ text: reading(...all) })).toMatch(/reads 6 things of the mesh .* hands on 4 at most/);
  });

  it('hands on no more than is read', () => {
    const added = code('out vec4 pixel;\nvoid main() { pixel = vec4(1.0); }\n');
    expect(problemsOf(added)).toEqual([]);
    expect(added.vertices).toBe(
      'in vec3 position;\nuniform mat4 clipFromObject;\n\nvoid main() {\n  gl_Position = clipFromObject * vec4(position, 1.0);\n}\n',
    );
    const one = code('in highp vec2 uv;\nout vec4 pixel;\nvoid main() { pixel = vec4(uv, 0.0, 1.0); }\n');
    expect(problemsOf(one)).toEqual([]);
    expect(one.text).toContain('in highp vec2 uvOut;');
  });
});
