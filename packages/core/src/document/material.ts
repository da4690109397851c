import type { Material, Outline } from '@brelvin/contract';

export const FIRST_OUTLINE: Outline = { method: 'hull', width: 2, unit: 'pixels', hidden: false };

/** What the compiler reads of a material. */
export type MaterialSource = Pick<Material, 'surface' | 'code' | 'groups' | 'parameters' | 'images' | 'outline' | 'opacity'>;
