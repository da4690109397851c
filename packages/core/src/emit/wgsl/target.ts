import type { Target } from '../target';
import { emitWgsl } from './emit-wgsl';
import { legalise } from './legalise';

/** WGSL, for WebGPU. */
export const WGSL_TARGET: Target = {
  name: 'wgsl',
  // The least a device has, WebGPU section 3.6.2: maxSampledTexturesPerShaderStage, maxInterStageShaderVariables less one for the
  // pixel's place, maxUniformBufferBindingSize.
  limits: { textures: 16, varyings: 15, blockWords: 65_536 / 4 },
  legalise,
  emit: emitWgsl,
};
