import { library } from '../catalogue/library';
import { elaborate } from '../language';
import { FREE, type Cost } from './cost';
import { stageCost, type StageCost } from './program-cost';

/** What `main` of a text costs, on top of the library; places are its lines. */
function costOf(text: string, lights = 3): StageCost {
  const { module, diagnostics } = elaborate('test', text, library().module);
  expect(diagnostics.filter(({ severity }) => severity === 'error')).toEqual([]);
  const placeOf = ({ path, range }: { path: string; range?: { from: number } }): string | undefined =>
    path === 'test' && range ? `line ${text.slice(0, range.from).split('\n').length}` : undefined;
  return stageCost({ functions: [...module.functions.values()] }, { lights, placeOf });
}

const instructions = (body: string, lights?: number): number => costOf(`void main() { ${body} }`, lights).whole.instructions;

describe('What a program costs', () => {
  it('counts by components, and special functions by what they are made of', () => {
    expect(instructions('float a = frameTime + 1.0;')).toBe(1);
    expect(instructions('vec3 a = vec3(frameTime) * 2.0;')).toBe(3);
    expect(instructions('vec3 a = -vec3(frameTime).zyx;')).toBe(0);
    expect(instructions('float a = sqrt(frameTime);')).toBe(4);
    expect(instructions('float a = 1.0 / frameTime;')).toBe(5);
    expect(instructions('float a = pow(frameTime, 2.0);')).toBe(9);
    expect(instructions('vec3 a = normalize(vec3(frameTime));')).toBe(3 + 4 + 3);
    expect(instructions('vec4 a = mat4(frameTime) * vec4(frameTime);')).toBe(16);
    expect(instructions('mat3 a = mat3(frameTime) * mat3(frameTime);')).toBe(27);
    expect(instructions('int a = int(frameTime);')).toBe(1);
  });

  it('puts functions in the place of their calls, each time', () => {
    const twice = costOf('float f(float x) { return x * x + 1.0; }\nvoid main() { float a = f(frameTime) + f(2.0); }');
    expect(twice.whole.instructions).toBe(2 + 2 + 1);
  });

  it('takes the dearer way of a branch', () => {
    expect(instructions('float a = 0.0; if (frameTime > 1.0) { a = sin(frameTime); } else { a = 1.0 + frameTime; }')).toBe(1 + 5);
    expect(
      instructions('float a = 0.0; switch (int(frameTime)) { case 0: a = frameTime * 2.0; break; default: a = exp2(frameTime); }'),
    ).toBe(1 + 4);
  });

  it('multiplies by the turns of loops, and by the lights that there are', () => {
    const body = 'float a = 0.0; for (int i = 0; i < 8; i++) { a += frameTime; }';
    // Each turn: the comparison, the addition, the counting.
    expect(instructions(body)).toBe(8 * 3);
    const lit = 'float a = 0.0; int count = lightsInUse(); for (int i = 0; i < count; i++) { a += frameTime; }';
    expect(instructions(lit, 5) - instructions(lit, 0)).toBe(5 * 3);
    expect(costOf(`void main() { ${lit} }`).openLoops).toBe(0);
  });

  it('says where nobody can tell how often a loop goes round', () => {
    const { openLoops, whole } = costOf('void main() { float a = 0.0; while (a < frameTime) { a += frameTime; } }');
    expect(openLoops).toBe(1);
    expect(whole.instructions).toBe(2);
  });

  it('goes to the place of each statement, calls with it, once for each turn', () => {
    const text = [
      'float f(float x) { return x * 2.0; }',
      'void main() {',
      'for (int i = 0; i < 4; i++) {',
      'float a = frameTime + 1.0;',
      'float b = f(a) * f(a);',
      '}',
      '}',
    ];
    const { places, whole } = costOf(text.join('\n'));
    expect(places.get('line 1')?.instructions).toBe(4 * 2);
    expect(places.get('line 4')?.instructions).toBe(4);
    expect(places.get('line 5')?.instructions).toBe(4);
    expect(places.get('line 3')?.instructions).toBe(4 * 2);
    const sum = [...places.values()].reduce((total: number, cost: Cost) => total + cost.instructions, 0);
    expect(sum).toBe(whole.instructions);
  });

  it('counts reads of images apart', () => {
    const { whole } = costOf(
      'uniform sampler2D map;\nvoid main() { vec4 a = texture(map, vec2(0.0)) + texelFetch(map, ivec2(0), 0); ivec2 b = textureSize(map, 0); }',
    );
    expect(whole.reads).toBe(2);
  });

  it('is nothing where there is nothing', () => {
    expect(costOf('void main() { }').whole).toEqual(FREE);
  });
});
