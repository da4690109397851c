import { PORTABLE_LIMITS } from '../ir/limits';

/** Textures of the frame that a surface may read. */
const SYSTEM_TEXTURES = 5;
/** Vectors that every surface hands on to its pixels. */
const SURFACE_VARYINGS = 11;

/** Outlets that are looked at together; more would make the driver wait too long. */
export const MOST_OUTLETS = 64;
/**
 * Outlets that one program computes along its line. Devices that walk through both ways of a branch compute all of them at each
 * pixel, whichever is wanted.
 */
export const OUTLETS_TOGETHER = 4;
export const MOST_IMAGES = PORTABLE_LIMITS.textures - SYSTEM_TEXTURES;
export const MOST_CARRIED = PORTABLE_LIMITS.varyings - SURFACE_VARYINGS;
export const TOO_MANY_CARRIED = `A material may carry ${MOST_CARRIED} values to its pixels; this is one too many. Combine numbers into one vector.`;
