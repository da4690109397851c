import type { CubeChain, MipChain } from '@brelvin/core';

/** The six sides of a cube image on one sheet, three by two: +x −x +y above, −y +z −z below. */
export function cubeSheet({ faces }: CubeChain): MipChain {
  const side = faces[0]?.width ?? 1;
  const levels = (faces[0]?.levels ?? []).map((_, level) => {
    const small = Math.max(1, side >> level);
    const sheet = new Uint8Array(small * small * 6 * 4);
    faces.forEach((face, index) => {
      const [left, top] = [(index % 3) * small, Math.floor(index / 3) * small];
      for (let row = 0; row < small; row++) {
        const from = (face.levels[level] ?? new Uint8Array(0)).subarray(row * small * 4, (row + 1) * small * 4);
        sheet.set(from, ((top + row) * small * 3 + left) * 4);
      }
    });
    return sheet;
  });
  return { width: side * 3, height: side * 2, levels };
}
