import type { InletValue } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { hasCurve, nodeCurve, type NodeCurve } from './node-curve';

function curve(kind: string, values: Record<string, InletValue> = {}): NodeCurve {
  const found = nodeCurve(library().kinds.get(kind)!, values, 64);
  if (!found) throw new Error(`${kind} has no curve`);
  return found;
}

describe('The course of a node', () => {
  it('is that of its function: a smooth step between its ends', () => {
    const { low, high, lines } = curve('smoothstep', { low: 0.25, high: 0.75 });
    expect([low, high]).toEqual([0, 1]);
    expect(lines.length).toBe(1);
    const [line = []] = lines;
    expect([line[0], line[16], line[64]]).toEqual([0, 0, 1]);
    expect(line[32]).toBeCloseTo(0.5, 5);
  });

  it('of a remap shows its own range, with some room', () => {
    const { low, high, lines } = curve('remap', { inLow: 10, inHigh: 20, outLow: -1, outHigh: 1 });
    expect([low, high]).toEqual([8.5, 21.5]);
    expect(lines[0]?.[32]).toBeCloseTo(0, 5);
    expect(curve('remap', { inLow: 3, inHigh: 3 }).lines[0]?.every(Number.isFinite)).toBeTrue();
  });

  it('of light goes over the cosine, in as many steps as there are bands', () => {
    const { low, lines } = curve('bands', { count: 4, softness: 0, floor: 0.2, base: [1, 1, 1] });
    expect(low).toBe(-1);
    const steps = lines[0]?.map((each) => each.toFixed(3)) ?? [];
    const levels = new Set(steps.filter((each) => steps.filter((other) => other === each).length > 2));
    expect(levels.size).toBe(4);
    expect(lines[0]?.[0]).toBeCloseTo(0.2, 5);
  });

  it('of colours has a line each for red, green and blue', () => {
    expect(curve('gradient', { stops: [1, 0, 0, 0, 0, 0, 1, 1] }).lines.map((line) => [line[0], line[64]])).toEqual([
      [1, 0],
      [0, 0],
      [0, 1],
    ]);
  });

  it('can be had of every kind that says so, whatever is typed', () => {
    for (const kind of library().kinds.values()) {
      if (!hasCurve(kind.id)) continue;
      for (const number of [0, -1, 1e9]) {
        const values = Object.fromEntries(kind.inlets.filter(({ meaning }) => meaning !== 'stops').map(({ name }) => [name, number]));
        expect(nodeCurve(kind, values)?.lines.flat().every(Number.isFinite)).withContext(kind.id).toBeTrue();
      }
    }
    expect(nodeCurve(library().kinds.get('add')!, {})).toBeUndefined();
  });
});
