import type { FloatPicture } from '../float-picture';
import { faceDirection, faceSolidAngle, panoramaDirection, panoramaSolidAngle } from './directions';

/** Nine coefficients of a colour, in the order 1, y, z, x, xy, yz, 3z²−1, xz, x²−y². */
export type Harmonics = readonly (readonly number[])[];

/** The nine real spherical harmonics up to degree 2 in a direction. */
export function harmonicsAt([x = 0, y = 0, z = 0]: readonly number[]): number[] {
  return [
    0.282095,
    0.488603 * y,
    0.488603 * z,
    0.488603 * x,
    1.092548 * x * y,
    1.092548 * y * z,
    0.315392 * (3 * z * z - 1),
    1.092548 * x * z,
    0.546274 * (x * x - y * y),
  ];
}

/** How much of each degree a cosine lobe keeps, divided by π: what a white surface sends on. */
const KEPT = [1, 2 / 3, 2 / 3, 2 / 3, 1 / 4, 1 / 4, 1 / 4, 1 / 4, 1 / 4];

/**
 * Light that reaches a surface from all around, as nine coefficients: Ramamoorthi, Hanrahan 2001, "An efficient
 * representation for irradiance environment maps", SIGGRAPH. With the cosine lobe and 1/π in them already, so that their sum
 * with `harmonicsAt` of the normal is what a white surface sends on.
 */
export function panoramaHarmonics({ width, height, data }: FloatPicture): Harmonics {
  const sums = new Sums();
  for (let y = 0; y < height; y++) {
    const angle = panoramaSolidAngle(width, height, y);
    for (let x = 0; x < width; x++) sums.add(panoramaDirection((x + 0.5) / width, (y + 0.5) / height), data, (y * width + x) * 3, angle);
  }
  return sums.finish();
}

/** The same, short enough to stand in a document. */
export function toldHarmonics(harmonics: Harmonics): number[][] {
  return harmonics.map((colour) => colour.map((each) => Math.round(each * 1e6) / 1e6));
}

/** The same of six faces. */
export function facesHarmonics(faces: readonly FloatPicture[]): Harmonics {
  const sums = new Sums();
  faces.forEach(({ width, data }, face) => {
    for (let y = 0; y < width; y++)
      for (let x = 0; x < width; x++) {
        const [s, t] = [(x + 0.5) / width, (y + 0.5) / width];
        sums.add(faceDirection(face, s, t), data, (y * width + x) * 3, faceSolidAngle(width, s, t));
      }
  });
  return sums.finish();
}

class Sums {
  private readonly sums = Array.from({ length: 9 }, () => [0, 0, 0]);
  private angle = 0;

  add(direction: readonly number[], data: Float32Array, at: number, angle: number): void {
    this.angle += angle;
    const basis = harmonicsAt(direction);
    for (let index = 0; index < 9; index++) {
      const sum = this.sums[index];
      const weight = (basis[index] ?? 0) * angle;
      if (!sum) continue;
      for (let channel = 0; channel < 3; channel++) sum[channel] = (sum[channel] ?? 0) + (data[at + channel] ?? 0) * weight;
    }
  }

  /** What pixels leave out of the sphere, or count twice, is brought back to it. */
  finish(): Harmonics {
    const whole = (4 * Math.PI) / this.angle;
    return this.sums.map((sum, index) => sum.map((each) => each * (KEPT[index] ?? 0) * whole));
  }
}
