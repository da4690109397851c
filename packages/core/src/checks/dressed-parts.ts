import { overridesOf, type PartOverrides } from '../document/part-rules';
import { partNames } from '../mesh/build-mesh';
import type { CheckInput, SeenThrough } from './check';

/** A part as it stands: what it wears, and how that is seen through. */
export interface DressedPart {
  readonly mesh: string;
  readonly part: string;
  readonly dress: PartOverrides;
  readonly seen?: SeenThrough;
}

export function dressedParts({ set, bench, seenThrough }: CheckInput): DressedPart[] {
  if (!set) return [];
  return Object.entries(set.meshes).flatMap(([mesh, stands]) =>
    partNames(stands).map((part): DressedPart => {
      const dress = overridesOf(set, mesh, part);
      return { mesh, part, dress, seen: seenThrough?.get(dress.material ?? bench ?? '') };
    }),
  );
}

/** Ids of the meshes of which some part wears the material that is checked. */
export function meshesWearing(input: CheckInput): string[] {
  const worn = dressedParts(input).filter(({ dress }) => (dress.material ?? input.bench) === input.bench);
  return [...new Set(worn.map(({ mesh }) => mesh))];
}
