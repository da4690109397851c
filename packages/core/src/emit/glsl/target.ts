import type { Target } from '../target';
import { emitGlsl } from './emit-glsl';
import { legalise } from './legalise';

/** GLSL ES 3.00, for OpenGL ES 3.0 and WebGL2. */
export const GLSL_TARGET: Target = { name: 'glsl', legalise, emit: emitGlsl };
