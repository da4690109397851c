import { srgbFromLinear } from '../image/colour-space';
import type { Pixels } from '../image/mips';

/** The six sides of a lamp-oil crate's label. */
export const LABELS = ['front', 'back', 'right', 'left', 'top', 'bottom'] as const;
export type LabelName = (typeof LABELS)[number];

export const LABEL_SIDE = 128;

/** What the demo documents call each label's file; whoever stores the files puts their real addresses in. */
export const LABEL_ASSETS: Readonly<Record<LabelName, string>> = {
  front: '1'.repeat(64),
  back: '2'.repeat(64),
  right: '3'.repeat(64),
  left: '4'.repeat(64),
  top: '5'.repeat(64),
  bottom: '6'.repeat(64),
};

const PAPER = [0.78, 0.7, 0.52];
const INKS: Readonly<Record<LabelName, readonly number[]>> = {
  front: [0.32, 0.04, 0.03],
  back: [0.03, 0.12, 0.22],
  right: [0.05, 0.19, 0.1],
  left: [0.27, 0.12, 0.02],
  top: [0.12, 0.03, 0.18],
  bottom: [0.04, 0.04, 0.05],
};

/** A printed label: a frame, and a mark of its own for each side. 8-bit sRGB. */
export function labelPixels(label: LabelName): Pixels {
  const data = new Uint8Array(LABEL_SIDE * LABEL_SIDE * 4);
  for (let y = 0; y < LABEL_SIDE; y++) {
    for (let x = 0; x < LABEL_SIDE; x++) {
      const [u, v] = [(x + 0.5) / LABEL_SIDE - 0.5, (y + 0.5) / LABEL_SIDE - 0.5];
      const ink = Math.max(frame(u, v), MARKS[label](u, v));
      const grain = 0.94 + (0.06 * (((x * 73856093) ^ (y * 19349663)) & 255)) / 255;
      const at = (y * LABEL_SIDE + x) * 4;
      for (let channel = 0; channel < 3; channel++) {
        const linear = (PAPER[channel] ?? 0) * grain * (1 - ink) + (INKS[label][channel] ?? 0) * ink;
        data[at + channel] = Math.round(srgbFromLinear(linear) * 255);
      }
      data[at + 3] = 255;
    }
  }
  return { width: LABEL_SIDE, height: LABEL_SIDE, data };
}

/** 1 inside of a distance, 0 outside, over about a pixel. */
function inside(distance: number): number {
  return Math.min(Math.max(0.5 - distance * LABEL_SIDE, 0), 1);
}

function frame(u: number, v: number): number {
  const edge = Math.max(Math.abs(u), Math.abs(v));
  return inside(Math.abs(edge - 0.44) - 0.012);
}

const MARKS: Readonly<Record<LabelName, (u: number, v: number) => number>> = {
  // A lamp's flame.
  front: (u, v) => inside(Math.hypot(u * (1.6 + v * 2.2), v - 0.04) - 0.24),
  // A ring.
  back: (u, v) => inside(Math.abs(Math.hypot(u, v) - 0.24) - 0.05),
  // Waves.
  right: (u, v) =>
    inside(Math.abs(((v + 0.03 * Math.sin(u * 24) + 0.5) % 0.16) - 0.08) - 0.03) * inside(Math.max(Math.abs(u), Math.abs(v)) - 0.34),
  // A cross of two bars.
  left: (u, v) => inside(Math.min(Math.abs(u + v), Math.abs(u - v)) - 0.06) * inside(Math.hypot(u, v) - 0.34),
  // A drop.
  top: (u, v) => inside(Math.hypot(u, v - 0.1) - 0.2 + Math.max(0, -v) * 0.4),
  // Rows of dots.
  bottom: (u, v) =>
    inside(Math.hypot(((u + 0.5) % 0.2) - 0.1, ((v + 0.5) % 0.2) - 0.1) - 0.05) * inside(Math.max(Math.abs(u), Math.abs(v)) - 0.38),
};
