import { boundsOf } from '../mesh/mesh';
import { weld } from '../mesh/weld';
import type { Corners } from './corners';
import { faceNormal } from './make-normals';

/** Cosine of how far a face may lean away from the first one of its chart: little enough that flat charts do not fold. */
const LEAN = Math.cos(Math.PI / 3.6);
/** Room between charts, as a part of the picture. */
const MARGIN = 1 / 512;

interface Chart {
  triangles: readonly number[];
  readonly normal: readonly number[];
  low: [number, number];
  high: [number, number];
}

/**
 * A second UV set without overlaps, for baked light: neighbouring faces that look nearly one way make a chart, which is laid
 * flat; what folds onto another part of its chart makes one of its own. Charts are put onto shelves, the tallest first.
 */
export function makeSecondUvs(corners: Corners): void {
  const positions = corners.get('positions');
  const flat = new Float64Array(corners.indices.length * 2);
  const charts = flatCharts(corners, positions, flat);
  const keys = new Int32Array(corners.indices.length / 3);
  charts.forEach(({ triangles }, chart) => triangles.forEach((triangle) => (keys[triangle] = chart)));
  const { places, side } = putOnShelves(charts);
  corners.split(keys);
  const uvs = new Float32Array(corners.count * 2);
  charts.forEach((chart, index) => {
    const [left, top] = places[index] ?? [0, 0];
    for (const triangle of chart.triangles) {
      for (let corner = triangle * 3; corner < triangle * 3 + 3; corner++) {
        const u = ((flat[corner * 2] ?? 0) - chart.low[0] + left) / side;
        const v = ((flat[corner * 2 + 1] ?? 0) - chart.low[1] + top) / side;
        const vertex = corners.indices[corner] ?? 0;
        uvs[vertex * 2] = u;
        uvs[vertex * 2 + 1] = v;
      }
    }
  });
  corners.set('uvs2', 2, uvs);
}

function flatCharts(corners: Corners, positions: Float32Array<ArrayBuffer>, flat: Float64Array): Chart[] {
  const { indices } = corners;
  const beside = neighbours(indices, weld({ positions, bounds: boundsOf(positions) }));
  const normals = Array.from({ length: indices.length / 3 }, (_, triangle) => faceNormal(positions, indices, triangle * 3));
  const charts: Chart[] = [];
  let waiting = normals.map((_, triangle) => triangle);
  while (waiting.length > 0) {
    const folded: number[] = [];
    for (const chart of growCharts(waiting, beside, normals)) {
      layFlat(chart, corners, positions, flat);
      const lies = chart.triangles.length > 1 ? takeFoldsOff(chart, flat) : [];
      if (lies.length > 0) layFlat(chart, corners, positions, flat);
      // One by one: a chart may have more triangles than a call takes arguments.
      for (const triangle of lies) folded.push(triangle);
      charts.push(chart);
    }
    waiting = folded;
  }
  return charts;
}

/** Faces are neighbours where they share two places. */
function growCharts(among: readonly number[], beside: Int32Array, normals: readonly (readonly number[])[]): Chart[] {
  const left = new Set(among);
  const charts: Chart[] = [];
  for (const seed of among) {
    if (!left.delete(seed)) continue;
    const normal = normals[seed] ?? [0, 1, 0];
    const [nx = 0, ny = 1, nz = 0] = normal;
    const triangles = [seed];
    for (let at = 0; at < triangles.length; at++) {
      for (let edge = 0; edge < 3; edge++) {
        const other = beside[(triangles[at] ?? 0) * 3 + edge] ?? -1;
        const leans = normals[other];
        if (!leans || !left.has(other)) continue;
        if ((leans[0] ?? 0) * nx + (leans[1] ?? 0) * ny + (leans[2] ?? 0) * nz < LEAN) continue;
        left.delete(other);
        triangles.push(other);
      }
    }
    charts.push({ triangles, normal, low: [Infinity, Infinity], high: [-Infinity, -Infinity] });
  }
  return charts;
}

/** Cells along the longer side of a chart by which folds are found. */
const CELLS = 256;

/** Takes triangles out of a chart that lie on others of it, and gives them back. */
function takeFoldsOff(chart: Chart, flat: Float64Array): number[] {
  const [left, top] = chart.low;
  const size = Math.max(chart.high[0] - left, chart.high[1] - top, 1e-12);
  const taken = new Uint8Array((CELLS + 1) * (CELLS + 1));
  const folded = new Set<number>();
  const points = new Float64Array(6);
  for (const triangle of chart.triangles) {
    for (let axis = 0; axis < 6; axis++) points[axis] = (((flat[triangle * 6 + axis] ?? 0) - (axis % 2 === 0 ? left : top)) / size) * CELLS;
    const cells = cellsInside(points);
    if (cells.some((cell) => taken[cell])) folded.add(triangle);
    else for (const cell of cells) taken[cell] = 1;
  }
  if (folded.size > 0) {
    chart.triangles = chart.triangles.filter((triangle) => !folded.has(triangle));
    chart.low = [Infinity, Infinity];
    chart.high = [-Infinity, -Infinity];
  }
  return [...folded];
}

const NO_CELLS: readonly number[] = [];

/** Cells whose middle lies inside of a triangle, well away from its sides. @param points x y of its three corners, in cells */
function cellsInside(points: Float64Array): readonly number[] {
  const [ax, ay, bx, by] = [points[0] ?? 0, points[1] ?? 0, points[2] ?? 0, points[3] ?? 0];
  const [cx, cy] = [points[4] ?? 0, points[5] ?? 0];
  const firstX = Math.max(0, Math.ceil(Math.min(ax, bx, cx) - 0.5));
  const lastX = Math.min(CELLS, Math.floor(Math.max(ax, bx, cx) - 0.5));
  const firstY = Math.max(0, Math.ceil(Math.min(ay, by, cy) - 0.5));
  const lastY = Math.min(CELLS, Math.floor(Math.max(ay, by, cy) - 0.5));
  const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
  // Most triangles of a dense mesh lie between the middles of cells.
  if (firstX > lastX || firstY > lastY || Math.abs(area) < 1e-9) return NO_CELLS;
  const found: number[] = [];
  for (let row = firstY; row <= lastY; row++) {
    for (let column = firstX; column <= lastX; column++) {
      const [x, y] = [column + 0.5, row + 0.5];
      const c = ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / area;
      const a = ((cx - bx) * (y - by) - (cy - by) * (x - bx)) / area;
      const b = ((ax - cx) * (y - cy) - (ay - cy) * (x - cx)) / area;
      if (Math.min(a, b, c) > 1e-6) found.push(row * (CELLS + 1) + column);
    }
  }
  return found;
}

/** For each side of each triangle the triangle on its other side, or −1. */
function neighbours(indices: Uint32Array, places: Uint32Array): Int32Array {
  const beside = new Int32Array(indices.length).fill(-1);
  const open = new Map<number, number>();
  const many = places.reduce((most, place) => Math.max(most, place), 0) + 1;
  for (let at = 0; at < indices.length; at++) {
    const next = at % 3 === 2 ? at - 2 : at + 1;
    const [from, to] = [places[indices[at] ?? 0] ?? 0, places[indices[next] ?? 0] ?? 0];
    const other = open.get(to * many + from);
    if (other === undefined) {
      open.set(from * many + to, at);
      continue;
    }
    beside[at] = Math.floor(other / 3);
    beside[other] = Math.floor(at / 3);
    open.delete(to * many + from);
  }
  return beside;
}

function layFlat(chart: Chart, { indices }: Corners, positions: Float32Array, flat: Float64Array): void {
  const [x = 0, y = 1, z = 0] = chart.normal;
  const helper = Math.abs(y) < 0.9 ? [0, 1, 0] : [1, 0, 0];
  const right = unit(crossed(helper, chart.normal));
  const down = crossed(right, [x, y, z]);
  for (const triangle of chart.triangles) {
    for (let corner = triangle * 3; corner < triangle * 3 + 3; corner++) {
      const at = (indices[corner] ?? 0) * 3;
      for (const axis of [0, 1] as const) {
        const way = axis === 0 ? right : down;
        const place =
          (positions[at] ?? 0) * (way[0] ?? 0) + (positions[at + 1] ?? 0) * (way[1] ?? 0) + (positions[at + 2] ?? 0) * (way[2] ?? 0);
        flat[corner * 2 + axis] = place;
        if (place < chart.low[axis]) chart.low[axis] = place;
        if (place > chart.high[axis]) chart.high[axis] = place;
      }
    }
  }
}

/** Places of charts, their left and top, and the side of the square that holds them all. */
function putOnShelves(charts: readonly Chart[]): { places: [number, number][]; side: number } {
  const sizes = charts.map(({ low, high }) => [high[0] - low[0], high[1] - low[1]] as const);
  const area = sizes.reduce((sum, [wide, high]) => sum + wide * high, 0);
  const order = charts.map((_, index) => index).sort((a, b) => (sizes[b]?.[1] ?? 0) - (sizes[a]?.[1] ?? 0));
  let side = sizes.reduce((widest, [wide]) => Math.max(widest, wide), Math.max(Math.sqrt(area) * 1.1, 1e-9));
  for (;;) {
    const gap = side * MARGIN;
    const places: [number, number][] = [];
    let [left, top, shelf] = [gap, gap, 0];
    for (const index of order) {
      const [wide, high] = sizes[index] ?? [0, 0];
      if (left + wide + gap > side + 2 * gap && left > gap) {
        left = gap;
        top += shelf + gap;
        shelf = 0;
      }
      places[index] = [left, top];
      left += wide + gap;
      shelf = Math.max(shelf, high);
    }
    if (top + shelf + gap <= side + 2 * gap) return { places, side: side + 2 * gap };
    side *= 1.08;
  }
}

function crossed(a: readonly number[], b: readonly number[]): number[] {
  const [ax = 0, ay = 0, az = 0] = a;
  const [bx = 0, by = 0, bz = 0] = b;
  return [ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx];
}

function unit(a: readonly number[]): number[] {
  const length = Math.hypot(...a) || 1;
  return a.map((each) => each / length);
}
