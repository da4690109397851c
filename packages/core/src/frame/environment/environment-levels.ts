/** Levels of a filtered environment, from a mirror to the roughest surface. */
export const LEVELS = 6;

/** The roughness that a level stands for; see `levelOfRoughness` in light/environment.glsl. */
export function roughnessOfLevel(level: number): number {
  return 1.5 - Math.sqrt(2.25 - (2 * level) / (LEVELS - 1));
}

/** The level, also between two, that a roughness is read at. */
export function levelOfRoughness(roughness: number): number {
  return (LEVELS - 1) * roughness * (1.5 - 0.5 * roughness);
}
