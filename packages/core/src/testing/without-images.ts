import { library } from '../catalogue/library';
import type { IrFunction } from '../ir/ir';
import { elaborate } from '../language';

/** What stands in for functions that read images, which only a device can. */
const STAND_INS = {
  'albedosAt(float,float)': 'vec3 albedosAt(float nDotV, float roughness)',
  'blurredThrough(vec2,float)': 'vec3 blurredThrough(vec2 at, float slope)',
  'environmentMirrored(vec3,float)': 'vec3 environmentMirrored(vec3 direction, float roughness)',
} as const;

export type StandIns = Partial<Record<keyof typeof STAND_INS, readonly number[]>>;

/** The library's functions; those that read images give these colours instead. */
export function withoutImages(colours: StandIns): ReadonlyMap<string, IrFunction> {
  const { module } = library();
  const text = Object.entries(colours).map(
    ([signature, colour]) =>
      `${STAND_INS[signature as keyof typeof STAND_INS]} { return vec3(${colour.map((each) => each.toFixed(9)).join(', ')}); }`,
  );
  const { functions } = elaborate('stand-ins', text.join('\n')).module;
  return new Map([...module.functions, ...functions]);
}
