import { described, inert, list, object, oneOf, optional, text, whole, type TypeOf } from '../schema/schema';
import { assetAddress, LONGEST_NAME, name } from './names';

export const IMAGE_ROLES = ['colour', 'data'] as const;
export const IMAGE_WRAPS = ['repeat', 'mirror', 'clamp'] as const;
export const IMAGE_FILTERS = ['smooth', 'sharp'] as const;

export const IMAGE = object({
  name: inert(text(LONGEST_NAME)),
  asset: inert(described(assetAddress, 'SHA-256 of the file.')),
  width: inert(described(whole(1, 1e6), 'Pixels.')),
  height: inert(whole(1, 1e6)),
  role: inert(described(oneOf(IMAGE_ROLES), '`colour` images are sRGB and read scene-linear; `data` images are read as they are.')),
  wrapX: inert(oneOf(IMAGE_WRAPS)),
  wrapY: inert(oneOf(IMAGE_WRAPS)),
  filter: inert(described(oneOf(IMAGE_FILTERS), '`sharp` shows pixels as squares.')),
  uvSet: described(whole(0, 1), 'The mesh’s first or second UV set, where no ribbon says otherwise.'),
  faces: inert(
    optional(list(assetAddress, 6, 6), 'Of a cube image: its six files, +x −x +y −y +z −z; `asset` is the first, and `width` its side.'),
  ),
  linked: inert(
    optional(
      name,
      'Name of the workspace’s image that it follows; without one it keeps its copy. A newer one is offered, never taken by itself.',
    ),
  ),
});

/** An image as a material uses it. The pixels are a file of the workspace, addressed by its SHA-256. */
export interface MaterialImage extends TypeOf<typeof IMAGE> {}
