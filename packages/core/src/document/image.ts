export const IMAGE_ROLES = ['colour', 'data'] as const;
export const IMAGE_WRAPS = ['repeat', 'mirror', 'clamp'] as const;
export const IMAGE_FILTERS = ['smooth', 'sharp'] as const;

/**
 * An image as a material uses it. The pixels are an asset of the workspace, addressed by the SHA-256 of the file.
 * `colour` images are sRGB and read scene-linear; `data` images are read as they are.
 */
export interface MaterialImage {
  readonly name: string;
  readonly asset: string;
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  readonly role: (typeof IMAGE_ROLES)[number];
  readonly wrapX: (typeof IMAGE_WRAPS)[number];
  readonly wrapY: (typeof IMAGE_WRAPS)[number];
  /** `sharp` shows pixels as squares. */
  readonly filter: (typeof IMAGE_FILTERS)[number];
  /** 0 or 1: the mesh's first or second UV set, where no ribbon says otherwise. */
  readonly uvSet: number;
  /** Of a cube image: its six files, +x −x +y −y +z −z; `asset` is the first, and `width` its side. */
  readonly faces?: readonly string[];
  /** Name of the workspace's image that it follows; without one it keeps its copy. A newer one is offered, never taken by itself. */
  readonly linked?: string;
}
