/**
 * Where the pixels of environments look. World space: right-handed, Y up. The middle of a panorama looks along −z, its
 * right along +x.
 */

/** @param u @param v 0…1 from the left and from the top */
export function panoramaDirection(u: number, v: number): [number, number, number] {
  const around = (u - 0.5) * 2 * Math.PI;
  const down = v * Math.PI;
  const ring = Math.sin(down);
  return [Math.sin(around) * ring, Math.cos(down), -Math.cos(around) * ring];
}

/** Faces of a cube in their order. */
export const CUBE_FACES = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;

/** @param s @param t 0…1 from the left and from the top of a face, as OpenGL ES 3.0, section 3.8.10, lays them out; of unit length */
export function faceDirection(face: number, s: number, t: number): [number, number, number] {
  const [a, b] = [s * 2 - 1, t * 2 - 1];
  const along: [number, number, number] =
    face === 0
      ? [1, -b, -a]
      : face === 1
        ? [-1, -b, a]
        : face === 2
          ? [a, 1, b]
          : face === 3
            ? [a, -1, -b]
            : face === 4
              ? [a, -b, 1]
              : [-a, -b, -1];
  const length = Math.hypot(...along);
  return [along[0] / length, along[1] / length, along[2] / length];
}

/** Solid angle of a pixel of a face, steradians: the area by the cube of the distance. */
export function faceSolidAngle(side: number, s: number, t: number): number {
  const [a, b] = [s * 2 - 1, t * 2 - 1];
  return 4 / (side * side * (1 + a * a + b * b) ** 1.5);
}

/** Solid angle of a pixel of a panorama in a row, steradians: a ring between two heights of the unit sphere, by its pixels. */
export function panoramaSolidAngle(width: number, height: number, row: number): number {
  return ((Math.cos((row / height) * Math.PI) - Math.cos(((row + 1) / height) * Math.PI)) * 2 * Math.PI) / width;
}
