/** Directions over a hemisphere round +z, with their shares of it: midpoints in the cosine and round it. */
export function overHemisphere(
  rings: number,
  slices: number,
  visit: (direction: readonly [number, number, number], angle: number) => void,
): void {
  for (let ring = 0; ring < rings; ring++) {
    const z = (ring + 0.5) / rings;
    const flat = Math.sqrt(1 - z * z);
    for (let slice = 0; slice < slices; slice++) {
      const turn = ((slice + 0.5) / slices) * 2 * Math.PI;
      visit([flat * Math.cos(turn), flat * Math.sin(turn), z], (2 * Math.PI) / (rings * slices));
    }
  }
}

/** The albedos of the lobes from a direction, by their formulas and not by the library: f0’s part, f90’s part, sheen’s. */
/** @param fine how many times finer than what tests of energy need */
export function albedosByHand(nDotV: number, roughness: number, fine = 1): readonly [number, number, number] {
  const key = `${nDotV} ${roughness} ${fine}`;
  const found = worked.get(key) ?? workedOut(nDotV, roughness, fine);
  worked.set(key, found);
  return found;
}

const worked = new Map<string, readonly [number, number, number]>();

function workedOut(nDotV: number, roughness: number, fine: number): [number, number, number] {
  const alpha2 = Math.max(roughness, 0.03) ** 4;
  const eye = [Math.sqrt(1 - nDotV * nDotV), 0, nDotV];
  let [x, y] = [0, 0];
  // Over half vectors with the density as measure, so that sharp lobes need no more points than wide ones.
  const [rings, slices] = [240 * fine, 64 * Math.sqrt(fine)];
  for (let ring = 0; ring < rings; ring++) {
    const u = (ring + 0.5) / rings;
    const cosine2 = (1 - u) / (1 + (alpha2 - 1) * u);
    const [cosine, sine] = [Math.sqrt(cosine2), Math.sqrt(Math.max(0, 1 - cosine2))];
    for (let slice = 0; slice < slices; slice++) {
      const turn = ((slice + 0.5) / slices) * 2 * Math.PI;
      const half = [sine * Math.cos(turn), sine * Math.sin(turn), cosine];
      const vDotH = half.reduce((sum, each, axis) => sum + each * (eye[axis] ?? 0), 0);
      const nDotL = 2 * vDotH * cosine - nDotV;
      if (nDotL <= 0 || vDotH <= 0) continue;
      const masking = (c: number): number => Math.sqrt(alpha2 + (1 - alpha2) * c * c);
      // G / (4 nDotL nDotV) of Heitz 2014, height-correlated; times 4 vDotH nDotL / nDotH.
      const visibility = 0.5 / (nDotL * masking(nDotV) + nDotV * masking(nDotL));
      const share = (visibility * 4 * vDotH * nDotL) / cosine / (rings * slices);
      const glancing = (1 - vDotH) ** 5;
      x += share * (1 - glancing);
      y += share * glancing;
    }
  }
  return [x, y, sheenAlbedo(nDotV, roughness)];
}

/** Estevez, Kulla 2017: density and fitted masking of KHR_materials_sheen, over the hemisphere. */
function sheenAlbedo(nDotV: number, roughness: number): number {
  const alpha = Math.max(roughness, 0.07) ** 2;
  const o = (1 - alpha) ** 2;
  const fit = [
    [21.5473, 25.3245],
    [3.82987, 3.32435],
    [0.19823, 0.16801],
    [-1.9776, -1.27393],
    [-4.32054, -4.85967],
  ].map(([low = 0, high = 0]) => low + (high - low) * o);
  const [a = 0, b = 0, c = 0, d = 0, e = 0] = fit;
  const curve = (t: number): number => a / (1 + b * t ** c) + d * t + e;
  const lambda = (t: number): number => (t < 0.5 ? Math.exp(curve(t)) : Math.exp(2 * curve(0.5) - curve(1 - t)));
  let sum = 0;
  overHemisphere(200, 64, ([x, y, z], angle) => {
    const half = [x + Math.sqrt(1 - nDotV * nDotV), y, z + nDotV];
    const cosine = (half[2] ?? 0) / Math.hypot(...half);
    const density = ((2 + 1 / alpha) * Math.sqrt(Math.max(0, 1 - cosine * cosine)) ** (1 / alpha)) / (2 * Math.PI);
    sum += (density * z * angle) / ((1 + lambda(nDotV) + lambda(z)) * 4 * nDotV * z);
  });
  return Math.min(sum, 1);
}
