import { library } from '../catalogue/library';
import { newCodeMaterial } from '../compile/code/new-code';
import type { CheckInput, Finding } from './check';
import { countedLoops } from './counted-loops';

function found(text: string): readonly Omit<Finding, 'check'>[] {
  return countedLoops.find({ material: newCodeMaterial('m', {}, { text }), catalogue: library() } as unknown as CheckInput);
}

describe('A loop whose length is not plain', () => {
  it('is told of with its line, once each', () => {
    const loops = found(
      'vec4 paint(Surface s) {\n  float t = 0.0;\n  while (t < s.uv.x) { t += 0.1; }\n  do { t -= 0.1; } while (t > s.uv.y);\n  return vec4(t);\n}',
    );
    expect(loops.map(({ place, title }) => [place, title])).toEqual([
      ['code/loop 1', 'Line 3: nothing says how often this loop goes round.'],
      ['code/loop 2', 'Line 4: nothing says how often this loop goes round.'],
    ]);
    expect(loops[0]?.explanation).toContain('4,096 steps');
  });

  it('is not one whose turns are written, nor one over the lights', () => {
    const plain = (head: string): string =>
      `Lit paint(Surface s) { Lit sum = emitted(vec3(0.0)); ${head} { sum.diffuse += lightHere(i).colour; } return sum; }`;
    expect(found(plain('for (int i = 0; i < 3; i++)'))).toEqual([]);
    expect(found(plain('for (int i = 0; i < lightsInUse(); i++)'))).toEqual([]);
    expect(found(plain('int n = int(s.uv.x); for (int i = 0; i < n; i++)')).length).toBe(1);
  });
});
