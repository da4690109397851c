import type { Target } from '../target';
import { emitGlsl } from './emit-glsl';
import { legalise } from './legalise';

/** GLSL ES 3.00, for OpenGL ES 3.0 and WebGL2. */
export const GLSL_TARGET: Target = {
  name: 'glsl',
  // The least a device has, OpenGL ES 3.0 section 6.2: MAX_TEXTURE_IMAGE_UNITS, MAX_VARYING_VECTORS, MAX_UNIFORM_BLOCK_SIZE.
  limits: { textures: 16, varyings: 15, blockWords: 16_384 / 4 },
  legalise,
  emit: emitGlsl,
};
