import { PNG } from 'pngjs';

export interface DroppedFile {
  readonly name: string;
  readonly type: string;
  readonly content: Buffer;
}

const SIDE = 64;

/** A PNG whose pixels are told by u and v, 0…1 from the top left: red, green, blue and alpha, 0…1. */
export function pngFile(name: string, at: (u: number, v: number) => readonly number[], width = SIDE, height = SIDE): DroppedFile {
  const png = new PNG({ width, height });
  for (let index = 0; index < width * height; index++) {
    const values = at(((index % width) + 0.5) / width, (Math.floor(index / width) + 0.5) / height);
    for (let channel = 0; channel < 4; channel++)
      png.data[index * 4 + channel] = Math.round((values[channel] ?? (channel === 3 ? 1 : values[0]!)) * 255);
  }
  return { name, type: 'image/png', content: PNG.sync.write(png) };
}

/** Round bumps in rows, as heights. */
export function bump(u: number, v: number): number {
  const [x, y] = [(u * 4) % 1, (v * 4) % 1];
  return Math.max(0, 1 - 6.5 * ((x - 0.5) ** 2 + (y - 0.5) ** 2));
}

/** The bumps as normals; green points up, or down. */
export function bumpNormals(name: string, down: boolean): DroppedFile {
  const step = 1 / (SIDE * 2);
  return pngFile(name, (u, v) => {
    const right = ((bump(u + step, v) - bump(u - step, v)) / (2 * step)) * 0.09;
    const up = ((bump(u, v - step) - bump(u, v + step)) / (2 * step)) * 0.09;
    const length = Math.hypot(right, up, 1);
    return [-right / length, ((down ? 1 : -1) * up) / length, 1 / length].map((each) => each * 0.5 + 0.5);
  });
}

/** Eight maps of one surface, as an artist gets them. */
export function eightMaps(): DroppedFile[] {
  return [
    pngFile('tern_plate_basecolor.png', (u, v) => [0.2 + 0.6 * u, 0.3, 0.2 + 0.5 * v]),
    pngFile('tern_plate_roughness.png', (u) => [0.2 + 0.6 * u]),
    pngFile('tern_plate_metallic.png', (u, v) => [u + v > 1.4 ? 1 : 0]),
    bumpNormals('tern_plate_normal_gl.png', false),
    pngFile('tern_plate_height.png', (u, v) => [bump(u, v)]),
    pngFile('tern_plate_ao.png', (u, v) => [0.4 + 0.6 * bump(u, v)]),
    pngFile('tern_plate_emissive.png', (u, v) => (Math.hypot(u - 0.5, v - 0.5) < 0.1 ? [0.9, 0.5, 0.1] : [0, 0, 0])),
    pngFile('tern_plate_opacity.png', (u) => [u < 0.96 ? 1 : 0]),
  ];
}
