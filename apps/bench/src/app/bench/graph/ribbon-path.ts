import type { Point } from '../editors/card-layout';

const STUB = 14;
/** Cards closer than this have no room for a ribbon between them. */
const NARROWEST = 8;

/** The corners of a ribbon's middle line on the screen: out of the card, across or through its bends, into the card. */
export function ribbonPath(from: Point, to: Point, bends: readonly Point[], scale: number): Point[] {
  if (bends.length > 0) {
    const stub = STUB * scale;
    return [from, { x: from.x + stub, y: from.y }, ...bends, { x: to.x - stub, y: to.y }, to];
  }
  return to.x - from.x >= NARROWEST * scale ? across(from, to, scale) : back(from, to, scale);
}

function across(from: Point, to: Point, scale: number): Point[] {
  const stub = Math.min(STUB * scale, (to.x - from.x) / 3);
  return [from, { x: from.x + stub, y: from.y }, { x: to.x - stub, y: to.y }, to];
}

/** Between the two cards where there is room, else above both. */
function back(from: Point, to: Point, scale: number): Point[] {
  const stub = STUB * scale;
  const room = Math.abs(to.y - from.y) > 60 * scale;
  const middle = room ? to.y - Math.sign(to.y - from.y) * 28 * scale : Math.min(from.y, to.y) - 28 * scale;
  return [
    from,
    { x: from.x + stub, y: from.y },
    { x: from.x + stub, y: middle },
    { x: to.x - stub, y: middle },
    { x: to.x - stub, y: to.y },
    to,
  ];
}

/** A line beside a line, `offset` to the right of its direction: corners move along their bisectors. */
export function beside(points: readonly Point[], offset: number): Point[] {
  if (offset === 0) return [...points];
  return points.map((point, index) => {
    const before = points[index - 1];
    const after = points[index + 1];
    const first = before && direction(before, point);
    const second = after && direction(point, after);
    const [a, b] = [first ?? second ?? { x: 1, y: 0 }, second ?? first ?? { x: 1, y: 0 }];
    const normal = { x: -(a.y + b.y), y: a.x + b.x };
    const length = Math.hypot(normal.x, normal.y) || 1;
    // At a sharp corner the bisector is long; it is cut, so that threads do not shoot out.
    const stretch = Math.min(2 / length, 2);
    return { x: point.x + (normal.x / length) * offset * stretch, y: point.y + (normal.y / length) * offset * stretch };
  });
}

function direction(from: Point, to: Point): Point {
  const [x, y] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(x, y) || 1;
  return { x: x / length, y: y / length };
}

/** How far a place is from a line, and between which of its corners it is nearest. */
export function distanceTo(points: readonly Point[], at: Point): { readonly distance: number; readonly segment: number } {
  let best = { distance: Infinity, segment: 0 };
  for (let segment = 0; segment + 1 < points.length; segment++) {
    const [a, b] = [points[segment], points[segment + 1]];
    if (!a || !b) continue;
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const along = Math.min(Math.max(((at.x - a.x) * dx + (at.y - a.y) * dy) / (dx * dx + dy * dy || 1), 0), 1);
    const distance = Math.hypot(at.x - a.x - dx * along, at.y - a.y - dy * along);
    if (distance < best.distance) best = { distance, segment };
  }
  return best;
}
