/**
 * How much a clear substance mirrors head on, by its index of refraction: KHR_materials_ior. The formula of shaders stands in
 * physical/substance.glsl; this is its twin for controls.
 */
export function reflectivityOfIor(ior: number): number {
  return ((ior - 1) / (ior + 1)) ** 2;
}

/** The index of refraction of what mirrors this much head on, 0 to below 1. */
export function iorOfReflectivity(reflectivity: number): number {
  const root = Math.sqrt(Math.min(Math.max(reflectivity, 0), 0.9999));
  return (1 + root) / (1 - root);
}
