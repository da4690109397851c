/**
 * What a target gives a stage, or takes of it, by its name in the intermediate form. No text can use these names, since
 * they hold a dot; how a target calls them is the target's.
 */

/** Clip space, x and y −1…1, z 0…1 after division by w; written by the vertex stage. */
export const CLIP_POSITION = 'builtin.clipPosition';
/** Pixels; written by the vertex stage. */
export const POINT_SIZE = 'builtin.pointSize';
export const VERTEX_NUMBER = 'builtin.vertexNumber';
export const INSTANCE_NUMBER = 'builtin.instanceNumber';
/** The pixel's middle, rows from the top; depth 0…1; 1 / w. */
export const PIXEL_PLACE = 'builtin.pixelPlace';
/** Depth 0…1, where a program gives it itself. */
export const PIXEL_DEPTH = 'builtin.pixelDepth';
export const FRONT_FACING = 'builtin.frontFacing';
