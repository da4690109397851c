import type { MaterialImage } from '@brelvin/core';
import type { Choice } from '../../shared/controls/choices';

/** How pixels of an image become values. */
export const IMAGE_ROLE_CHOICES: readonly Choice<MaterialImage['role']>[] = [
  { value: 'colour', help: 'sRGB: what one sees, read as light' },
  { value: 'data', help: 'Numbers, read as they are stored: normals, roughness, masks' },
];

export const UV_SET_CHOICES: readonly Choice<number>[] = [
  { value: 0, words: 'first' },
  { value: 1, words: 'second', help: 'Without overlaps, for baked occlusion and light' },
];
