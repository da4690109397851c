/** What one program may have. */
export interface Limits {
  /** Textures that the pixel stage reads. */
  readonly textures: number;
  /** Vectors that the vertex stage hands on. */
  readonly varyings: number;
  /** Words of four bytes in a uniform block. */
  readonly blockWords: number;
}

/** What every target offers: a material that keeps to it runs everywhere. */
export const PORTABLE_LIMITS: Limits = { textures: 16, varyings: 15, blockWords: 4096 };
