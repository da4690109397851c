import type { Pixels } from '../image/mips';
import { colourImage, dataImage, field, grey, normalsOf, opennessOf, type Field } from './map-images';
import { tilingCells, tilingFractal, tilingNoise } from './tiling-noise';

export const JAR_SIDE = 1024;
/** Metres from black to white of the height map. */
export const JAR_RELIEF = 0.045;
/** The height that is not moved. */
export const JAR_MIDDLE = 0.6;
/** What the body's outline and girth measure, metres: the image is laid once round it. */
const BODY_SIZE = [4.6, 2.1] as const;

const GLAZE: readonly number[] = [0.34, 0.27, 0.19];
const THICK: readonly number[] = [0.2, 0.125, 0.06];
const CLAY: readonly number[] = [0.42, 0.25, 0.15];
const COBALT: readonly number[] = [0.018, 0.042, 0.15];
const IRON: readonly number[] = [0.07, 0.035, 0.02];

/** Where the foot was wiped clean of glaze. */
const BARE_FROM = 0.925;

interface Jar {
  readonly height: Field;
  /** Cobalt that was brushed on, 0…1. */
  readonly brushed: Field;
  /** How much glaze lies there, 0…1. */
  readonly glaze: Field;
  readonly specks: Field;
}

let made: Jar | undefined;

function jar(): Jar {
  if (made) return made;
  const brushed = field(JAR_SIDE, brushedAt);
  const glaze = field(JAR_SIDE, (u, v) => 1 - ramp(v + 0.012 * tilingFractal(u, v, 9, 9, 3, 41), BARE_FROM - 0.01, BARE_FROM + 0.01));
  const height = field(JAR_SIDE, heightAt);
  const specks = field(JAR_SIDE, (u, v) => {
    const { far, own } = tilingCells(u, v, 150, 70, 17);
    return own > 0.86 ? 1 - ramp(far, 0.1, 0.28) : 0;
  });
  for (let at = 0; at < height.values.length; at++)
    // Brushed colour lies on the glaze and is felt with a finger.
    height.values[at] = (height.values[at] ?? 0) + 0.035 * (brushed.values[at] ?? 0) * (glaze.values[at] ?? 0);
  return (made = { height, brushed, glaze, specks });
}

const ramp = (at: number, from: number, to: number): number => {
  const t = Math.min(Math.max((at - from) / (to - from), 0), 1);
  return t * t * (3 - 2 * t);
};
const line = (at: number, width: number): number => 1 - ramp(Math.abs(at), width * 0.5, width);

/** Rings of the throwing hand, two grooves, a row of stamped waves, and the pebbled skin that salt gives. */
function heightAt(u: number, v: number): number {
  const hand = 0.022 * Math.sin(2 * Math.PI * (v * 26 + 0.35 * tilingNoise(u, v, 3, 5, 3)));
  const grooves = 0.42 * (line(v - 0.295, 0.012) + line(v - 0.395, 0.012));
  const stamp = stampedAt(u, v);
  const skin = tilingCells(u, v, 190, 86, 29);
  const pebbles = 0.055 * (1 - ramp(skin.far, 0, 0.75)) + 0.05 * tilingNoise(u, v, 70, 32, 5);
  const dented = 0.07 * tilingFractal(u, v, 4, 3, 3, 11);
  const glazed = 1 - ramp(v, BARE_FROM - 0.012, BARE_FROM + 0.004);
  const relief = hand + dented + (pebbles + 0.04) * glazed - grooves - 0.3 * stamp;
  // Where the body meets lip and foot, which are not moved, it stays where it is.
  const held = ramp(v, 0, 0.03) * (1 - ramp(v, 0.97, 1));
  return Math.min(Math.max(JAR_MIDDLE + relief * held, 0), 1);
}

/** Waves with a dot in each, pressed in between the grooves. */
function stampedAt(u: number, v: number): number {
  const at = (u * 22) % 1;
  const middle = 0.345 + 0.016 * Math.sin(2 * Math.PI * at);
  const dot = 1 - ramp(Math.hypot((at - 0.25) * 0.2, v - 0.322), 0.006, 0.011);
  return Math.max(line(v - middle, 0.011), dot);
}

/** Cobalt strokes of a wide brush: a band on the shoulder, terns' wings over the belly. */
function brushedAt(u: number, v: number): number {
  const streak = 0.75 + 0.5 * tilingNoise(u, v, 6, 120, 53);
  const band = line(v - 0.235 - 0.004 * tilingNoise(u, v, 8, 2, 8), 0.02);
  const turn = (u * 5) % 1;
  const side = Math.abs(turn - 0.5) * 2;
  const wing = 0.56 + 0.1 * side * side - 0.045 * Math.sin(Math.PI * side);
  const width = 0.03 * Math.sqrt(Math.max(1 - side, 0)) + 0.006;
  const bird = side < 0.92 ? line(v - wing + 0.006 * tilingNoise(u, v, 20, 6, 61), width) : 0;
  const sea = line(v - 0.755 - 0.016 * Math.sin(2 * Math.PI * u * 9) - 0.004 * tilingNoise(u, v, 14, 3, 71), 0.013);
  return Math.min(Math.max(band, bird, sea) * streak, 1);
}

/** The maps of the salt-glazed jar, by the name of their file. All are laid once round the body. */
export const JAR_MAPS = {
  colour: (): Pixels => {
    const { height, brushed, glaze, specks } = jar();
    return colourImage(JAR_SIDE, (at, u, v) => {
      const pool = ramp(0.62 - (height.values[at] ?? 0), -0.05, 0.35);
      const tone = 1 + 0.22 * tilingFractal(u, v, 5, 4, 3, 97);
      const [blue, speck, there] = [brushed.values[at] ?? 0, specks.values[at] ?? 0, glaze.values[at] ?? 0];
      return [0, 1, 2].map((channel) => {
        const body = (GLAZE[channel] ?? 0) * tone * (1 - pool) + (THICK[channel] ?? 0) * pool;
        const inked = body * (1 - 0.9 * blue) + (COBALT[channel] ?? 0) * 0.9 * blue;
        const glazed = inked * (1 - 0.8 * speck) + (IRON[channel] ?? 0) * 0.8 * speck;
        return glazed * there + (CLAY[channel] ?? 0) * tone * (1 - there);
      });
    });
  },
  roughness: (): Pixels => {
    const { height, brushed, glaze, specks } = jar();
    return dataImage(JAR_SIDE, (at) => {
      const pit = ramp(0.6 - (height.values[at] ?? 0), 0, 0.3);
      const skin = 0.2 + 0.18 * pit + 0.06 * (brushed.values[at] ?? 0) + 0.25 * (specks.values[at] ?? 0);
      const there = glaze.values[at] ?? 0;
      return grey(skin * there + 0.82 * (1 - there));
    });
  },
  height: (): Pixels => dataImage(JAR_SIDE, (at) => grey(jar().height.values[at] ?? 0)),
  normal: (): Pixels => normalsOf(jar().height, JAR_RELIEF, BODY_SIZE),
  occlusion: (): Pixels => {
    const open = opennessOf(jar().height, 2.4);
    return dataImage(JAR_SIDE, (at) => grey(open.values[at] ?? 1));
  },
} as const;
