import type { Material, Outline } from '@brelvin/contract';

export const FIRST_OUTLINE: Outline = { method: 'hull', width: 2, unit: 'pixels', hidden: false };

/** What the compiler reads of a material. */
export interface MaterialSource extends Pick<Material, 'surface' | 'code' | 'groups' | 'parameters' | 'images' | 'outline' | 'opacity'> {
  /** Its graph is that of a field: what arrives at the dock is a distance. */
  readonly field?: boolean;
}
