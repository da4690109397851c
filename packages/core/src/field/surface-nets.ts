import type { FieldBox } from './field-box';
import type { FieldSampler } from './field-sampler';

/** Triangles of one region. Object space, metres; fronts counter-clockwise. */
export interface NetPiece {
  /** Number of the region. */
  readonly part: number;
  readonly positions: Float32Array<ArrayBuffer>;
  readonly normals: Float32Array<ArrayBuffer>;
  readonly indices: Uint32Array<ArrayBuffer>;
}

/** Corners of a cell as steps along the axes, and the edges between them. */
const CORNERS = Array.from({ length: 8 }, (_, corner) => [corner & 1, (corner >> 1) & 1, corner >> 2] as const);
const EDGES = CORNERS.flatMap((_, from) => [1, 2, 4].flatMap((step) => ((from & step) === 0 ? [[from, from | step] as const] : [])));

/**
 * A field's surface as triangles, by surface nets: each cell of a grid that the surface passes through has a vertex, the mean of
 * where it crosses the cell's edges, moved onto the surface along the slope; each crossed edge has a face between the four
 * cells round it (Gibson 1998, "Constrained elastic surface nets", MICCAI, LNCS 1496). What is thinner than a cell may be
 * lost, sharp edges are cut by up to half a cell; where the box cuts a solid, it stays open.
 *
 * @param cells along the longest edge of the box
 * @param slope of the field, at most: what is farther from the surface than a cell reaches is not asked
 * @param onShare told the part that is done, 0…1
 */
export function surfaceNets(
  sampler: FieldSampler,
  { low, high }: FieldBox,
  cells: number,
  slope: number,
  onShare: (share: number) => void = () => undefined,
): NetPiece[] {
  const size = Math.max(...high.map((each, axis) => each - (low[axis] ?? 0))) / cells;
  const counts = high.map((each, axis) => Math.max(1, Math.ceil((each - (low[axis] ?? 0)) / size - 1e-6)));
  const net = new Net(sampler, low, counts, size);
  const [nx = 1, ny = 1, nz = 1] = counts;
  const visit = (from: readonly [number, number, number], to: readonly [number, number, number]): void => {
    const extent = from.map((each, axis) => (to[axis] ?? 0) - each);
    const middle = from.map((each, axis) => (low[axis] ?? 0) + (each + (extent[axis] ?? 0) / 2) * size);
    const half = (Math.hypot(...extent) / 2) * size;
    if (Math.abs(sampler.at(middle).distance) > half * slope) return;
    const longest = extent.indexOf(Math.max(...extent));
    if ((extent[longest] ?? 1) === 1) {
      net.cross(from);
      return;
    }
    const cut = (from[longest] ?? 0) + Math.floor((extent[longest] ?? 0) / 2);
    const at = (corner: readonly [number, number, number]): [number, number, number] => {
      const moved: [number, number, number] = [...corner];
      moved[longest] = cut;
      return moved;
    };
    visit(from, at(to));
    visit(at(from), to);
  };
  // Slice by slice, so that it can be told how far it is.
  for (let x = 0; x < nx; x++) {
    visit([x, 0, 0], [x + 1, ny, nz]);
    onShare(((x + 1) / nx) * 0.8);
  }
  const pieces = net.pieces((share) => onShare(0.8 + share * 0.2));
  onShare(1);
  return pieces;
}

interface NetVertex {
  readonly position: number[];
  readonly normal: number[];
  readonly part: number;
}

class Net {
  /** Distances at corners of cells, as far as they were asked. */
  private readonly corners = new Map<number, number>();
  /** Cells that the surface passes through, in order. */
  private readonly crossed = new Map<number, NetVertex>();

  constructor(
    private readonly sampler: FieldSampler,
    private readonly low: readonly number[],
    private readonly counts: readonly number[],
    private readonly size: number,
  ) {}

  /** Gives a cell its vertex, where the surface passes through. */
  cross(cell: readonly [number, number, number]): void {
    const distances = CORNERS.map((step) => this.cornerAt(cell.map((each, axis) => each + (step[axis] ?? 0))));
    const sum = [0, 0, 0];
    let crossings = 0;
    for (const [from, to] of EDGES) {
      const [a, b] = [distances[from] ?? NaN, distances[to] ?? NaN];
      if (!(a < 0 !== b < 0) || !Number.isFinite(a + b)) continue;
      const along = a / (a - b);
      crossings++;
      for (const axis of [0, 1, 2]) {
        const [one, other] = [CORNERS[from]?.[axis] ?? 0, CORNERS[to]?.[axis] ?? 0];
        sum[axis] = (sum[axis] ?? 0) + one + (other - one) * along;
      }
    }
    if (crossings === 0) return;
    const mean = sum.map((each, axis) => (this.low[axis] ?? 0) + ((cell[axis] ?? 0) + each / crossings) * this.size);
    this.crossed.set(this.indexOf(cell), this.settled(mean, distances));
  }

  /** Onto the surface, by no more than half a cell, with the direction in which it faces there. */
  private settled(start: readonly number[], distances: readonly number[]): NetVertex {
    const { distance, part } = this.sampler.at(start);
    const slope = meanSlope(distances, this.size);
    const square = slope.reduce((sum, each) => sum + each * each, 0);
    const moved = start.map((each, axis) => each - ((slope[axis] ?? 0) * distance) / square);
    const far = Math.hypot(...moved.map((each, axis) => each - (start[axis] ?? 0)));
    const position = far <= this.size / 2 ? moved : [...start];
    const there = this.sampler.slope(position, this.size * 0.05);
    const length = Math.hypot(...there);
    return { position, normal: length > 1e-9 ? there.map((each) => each / length) : [0, 1, 0], part };
  }

  /** A face for each edge of the grid that is crossed, in the region that most of its corners are in. */
  pieces(onShare: (share: number) => void): NetPiece[] {
    const quads = new Map<number, number[][]>();
    let done = 0;
    for (const index of this.crossed.keys()) {
      const cell = this.cellOf(index);
      for (const axis of [0, 1, 2]) {
        const quad = this.face(cell, axis);
        if (!quad) continue;
        const part = mostOften(quad.map((each) => this.crossed.get(each)?.part ?? 0));
        const known = quads.get(part);
        if (known) known.push(quad);
        else quads.set(part, [quad]);
      }
      if (++done % 4096 === 0) onShare(done / this.crossed.size);
    }
    return [...quads].sort(([a], [b]) => a - b).map(([part, faces]) => this.pieceOf(part, faces));
  }

  /** The four cells round the edge that runs from a cell's first corner along an axis, counter-clockwise as seen from outside. */
  private face(cell: readonly number[], axis: number): number[] | undefined {
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
    if ((cell[u] ?? 0) === 0 || (cell[v] ?? 0) === 0) return undefined;
    const step = (along: number, by: number, from: readonly number[]): number[] =>
      from.map((each, at) => (at === along ? each + by : each));
    const [a, b] = [this.cornerAt(cell), this.cornerAt(step(axis, 1, cell))];
    if (!(a < 0 !== b < 0)) return undefined;
    const round = [cell, step(u, -1, cell), step(v, -1, step(u, -1, cell)), step(v, -1, cell)].map((each) => this.indexOf(each));
    if (!round.every((each) => this.crossed.has(each))) return undefined;
    return a < 0 ? round : round.reverse();
  }

  private pieceOf(part: number, faces: readonly number[][]): NetPiece {
    const numbers = new Map<number, number>();
    const indices = new Uint32Array(faces.length * 6);
    faces.forEach((face, index) => {
      const [a = 0, b = 0, c = 0, d = 0] = face.map((cell) => {
        const known = numbers.get(cell) ?? numbers.size;
        numbers.set(cell, known);
        return known;
      });
      indices.set([a, b, c, a, c, d], index * 6);
    });
    const positions = new Float32Array(numbers.size * 3);
    const normals = new Float32Array(numbers.size * 3);
    for (const [cell, number] of numbers) {
      const { position = [], normal = [] } = this.crossed.get(cell) ?? {};
      positions.set(position, number * 3);
      normals.set(normal, number * 3);
    }
    return { part, positions, normals, indices };
  }

  private cornerAt(corner: readonly number[]): number {
    const index = this.indexOf(corner);
    const known = this.corners.get(index);
    if (known !== undefined) return known;
    const { distance } = this.sampler.at(corner.map((each, axis) => (this.low[axis] ?? 0) + each * this.size));
    this.corners.set(index, distance);
    return distance;
  }

  private indexOf([x = 0, y = 0, z = 0]: readonly number[]): number {
    const [, ny = 1, nz = 1] = this.counts;
    return (x * (ny + 1) + y) * (nz + 1) + z;
  }

  private cellOf(index: number): number[] {
    const [, ny = 1, nz = 1] = this.counts;
    const rest = Math.floor(index / (nz + 1));
    return [Math.floor(rest / (ny + 1)), rest % (ny + 1), index % (nz + 1)];
  }
}

/** Of a cell, by the distances at its corners; a metre. */
function meanSlope(distances: readonly number[], size: number): number[] {
  return [0, 1, 2].map(
    (axis) => CORNERS.reduce((sum, step, corner) => sum + ((step[axis] ?? 0) * 2 - 1) * (distances[corner] ?? 0), 0) / (4 * size),
  );
}

function mostOften(values: readonly number[]): number {
  const [first = 0] = values;
  return values.reduce((best, each) => (countOf(values, each) > countOf(values, best) ? each : best), first);
}

function countOf(values: readonly number[], value: number): number {
  return values.filter((each) => each === value).length;
}
