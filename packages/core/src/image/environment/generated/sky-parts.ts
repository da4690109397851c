/** Scene-linear Rec. 709 that comes from a direction: unit length, world space, Y up. */
export type Sky = (direction: readonly [number, number, number]) => readonly [number, number, number];

type Colour = readonly [number, number, number];
type Direction = readonly [number, number, number];

export function blend(a: Colour, b: Colour, amount: number): Colour {
  const held = Math.min(Math.max(amount, 0), 1);
  return [a[0] + (b[0] - a[0]) * held, a[1] + (b[1] - a[1]) * held, a[2] + (b[2] - a[2]) * held];
}

export function sum(...colours: readonly Colour[]): Colour {
  return [0, 1, 2].map((channel) => colours.reduce((total, each) => total + (each[channel] ?? 0), 0)) as unknown as Colour;
}

export function scaled(colour: Colour, by: number): Colour {
  return [colour[0] * by, colour[1] * by, colour[2] * by];
}

/** 0 below `low`, 1 above `high`, without a bend in between. */
export function ramp(low: number, high: number, value: number): number {
  const t = Math.min(Math.max((value - low) / (high - low), 0), 1);
  return t * t * (3 - 2 * t);
}

export function towards(direction: Direction, other: Direction): number {
  const length = Math.hypot(...other);
  return (direction[0] * other[0] + direction[1] * other[1] + direction[2] * other[2]) / length;
}

/** A disc of light: 1 within its radius, radians, with an edge a fifth of that wide. */
export function disc(direction: Direction, middle: Direction, radius: number): number {
  const cosine = towards(direction, middle);
  // Most directions are far from it; the arc is dear.
  if (cosine < 1 - radius * radius * 0.61) return 0;
  const away = Math.acos(Math.min(cosine, 1));
  return 1 - ramp(radius * 0.9, radius * 1.1, away);
}

/** Light spread round something bright: 1 in its middle, half of it at the radius, radians. */
export function halo(direction: Direction, middle: Direction, radius: number): number {
  const squared = Math.max(2 - 2 * towards(direction, middle), 0);
  return 1 / (1 + squared / (radius * radius)) ** 2;
}

/** 0…1, the same for the same whole numbers on every machine: pcg (Jarzynski, Olano 2020, JCGT 9(3)). */
export function whole(x: number, y: number): number {
  let state = (Math.imul(Math.imul(x, 1597334677) ^ Math.imul(y, 3812015801), 747796405) + 2891336453) >>> 0;
  state = Math.imul((state >>> ((state >>> 28) + 4)) ^ state, 277803737) >>> 0;
  return ((state >>> 22) ^ state) / 4294967296 + (((state >>> 22) ^ state) < 0 ? 1 : 0);
}

/** Soft lumps, 0…1, by value noise on a plane of whole numbers. */
export function lumps(x: number, y: number): number {
  const [left, top] = [Math.floor(x), Math.floor(y)];
  const [a, b] = [ramp(0, 1, x - left), ramp(0, 1, y - top)];
  const upper = whole(left, top) * (1 - a) + whole(left + 1, top) * a;
  const lower = whole(left, top + 1) * (1 - a) + whole(left + 1, top + 1) * a;
  return upper * (1 - b) + lower * b;
}
