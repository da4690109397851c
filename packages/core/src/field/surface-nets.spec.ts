import { FieldSampler } from './field-sampler';
import { readField } from './read-field';
import { surfaceNets, type NetPiece } from './surface-nets';

const BOX = { low: [-1.5, -1.5, -1.5], high: [1.5, 1.5, 1.5] };

function netsOf(text: string, cells: number, box = BOX, slope = 1): NetPiece[] {
  const { program, diagnostics } = readField(text);
  if (!program) throw new SyntaxError(diagnostics[0].message);
  return surfaceNets(new FieldSampler(program), box, cells, slope);
}

const plain = (expression: string): string => `float field(vec3 p) { return ${expression}; }`;

function* corners({ positions }: NetPiece): Generator<[number, number, number]> {
  for (let at = 0; at < positions.length; at += 3) yield [positions[at] ?? 0, positions[at + 1] ?? 0, positions[at + 2] ?? 0];
}

/** By the divergence theorem: above 0 where fronts look outwards. */
function volumeOf(pieces: readonly NetPiece[]): number {
  let sum = 0;
  for (const { positions, indices } of pieces)
    for (let at = 0; at < indices.length; at += 3) {
      const [a, b, c] = [0, 1, 2].map((corner) => positions.subarray((indices[at + corner] ?? 0) * 3, (indices[at + corner] ?? 0) * 3 + 3));
      const [ax = 0, ay = 0, az = 0] = a ?? [];
      const [bx = 0, by = 0, bz = 0] = b ?? [];
      const [cx = 0, cy = 0, cz = 0] = c ?? [];
      sum += (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6;
    }
  return sum;
}

/** Edges that do not have a face on both sides. */
function openEdges(pieces: readonly NetPiece[]): number {
  const seen = new Map<string, number>();
  for (const { positions, indices } of pieces) {
    const key = (index: number): string => [...positions.subarray(index * 3, index * 3 + 3)].map((each) => each.toFixed(6)).join();
    for (let at = 0; at < indices.length; at += 3)
      for (let corner = 0; corner < 3; corner++) {
        const [a, b] = [key(indices[at + corner] ?? 0), key(indices[at + ((corner + 1) % 3)] ?? 0)];
        seen.set(a < b ? `${a} ${b}` : `${b} ${a}`, (seen.get(a < b ? `${a} ${b}` : `${b} ${a}`) ?? 0) + (a < b ? 1 : -1));
      }
  }
  return [...seen.values()].filter((each) => each !== 0).length;
}

describe('Surface nets', () => {
  it('lay a closed net on a sphere: on it, facing outwards, of its volume', () => {
    const pieces = netsOf(plain('sphereField(p, 1.0)'), 24);
    const [sphere] = pieces;
    expect(pieces.length).toBe(1);
    for (const [x, y, z] of corners(sphere!)) expect(Math.hypot(x, y, z)).toBeCloseTo(1, 4);
    for (let at = 0; at < sphere!.normals.length; at += 3)
      for (const axis of [0, 1, 2]) expect(sphere!.normals[at + axis]).toBeCloseTo(sphere!.positions[at + axis] ?? 0, 2);
    expect(openEdges(pieces)).toBe(0);
    const volume = (4 / 3) * Math.PI;
    expect(volumeOf(pieces)).toBeGreaterThan(volume * 0.97);
    expect(volumeOf(pieces)).toBeLessThan(volume);
  });

  it('come nearer to a torus the finer they are', () => {
    const exact = 2 * Math.PI ** 2 * 0.8 * 0.3 ** 2;
    const [coarse, fine] = [20, 40].map((cells) => Math.abs(volumeOf(netsOf(plain('torusField(p, 0.8, 0.6)'), cells)) - exact) / exact);
    expect(coarse).toBeLessThan(0.08);
    expect(fine).toBeLessThan(coarse! / 2);
  });

  it('part at the borders of regions, and stay closed over them', () => {
    const text = `const int LOWER = 1; // region Lower
const int UPPER = 2; // region Upper
float field(vec3 p, out int region) { region = p.y < 0.05 ? LOWER : UPPER; return boxField(p, vec3(1.6), 0.3); }`;
    const pieces = netsOf(text, 22);
    expect(pieces.map(({ part }) => part)).toEqual([0, 1]);
    expect(openEdges(pieces)).toBe(0);
    for (const [, y] of corners(pieces[0]!)) expect(y).toBeLessThan(0.25);
    for (const [, y] of corners(pieces[1]!)) expect(y).toBeGreaterThan(-0.15);
    // Rounded box: the box, smaller by the rounding all round, grown by it (Steiner's formula).
    const [edge, r] = [1, 0.3];
    const exact = edge ** 3 + 6 * edge ** 2 * r + 3 * Math.PI * edge * r ** 2 + (4 / 3) * Math.PI * r ** 3;
    expect(Math.abs(volumeOf(pieces) - exact) / exact).toBeLessThan(0.03);
  });

  it('are open where the box cuts a solid, and nothing where there is none, or where it cannot be computed', () => {
    expect(openEdges(netsOf(plain('sphereField(p, 1.6)'), 16))).toBeGreaterThan(0);
    expect(netsOf(plain('1.0'), 16)).toEqual([]);
    expect(netsOf(plain('-1.0'), 16)).toEqual([]);
    expect(netsOf(plain('sqrt(-1.0 - p.x * p.x)'), 12)).toEqual([]);
  });

  it('ask a field only where its surface may be', () => {
    const { program } = readField(plain('sphereField(p, 1.0)'));
    const sampler = new FieldSampler(program!);
    let asked = 0;
    const at = sampler.at.bind(sampler);
    sampler.at = (position) => {
      asked++;
      return at(position);
    };
    const count = (cells: number): number => {
      asked = 0;
      surfaceNets(sampler, BOX, cells, 1);
      return asked;
    };
    const [coarse, fine] = [count(16), count(32)];
    // By the surface, four times as many, and not eight.
    expect(fine / coarse).toBeLessThan(5);
  });

  it('tell how far they are', () => {
    const shares: number[] = [];
    const { program } = readField(plain('sphereField(p, 1.0)'));
    surfaceNets(new FieldSampler(program!), BOX, 12, 1, (share) => shares.push(share));
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
  });
});
