import { GLSL_TARGET } from './glsl/target';
import type { Target, TargetName } from './target';
import { WGSL_TARGET } from './wgsl/target';

/** All languages in which programs are written. */
export const TARGETS: Readonly<Record<TargetName, Target>> = { glsl: GLSL_TARGET, wgsl: WGSL_TARGET };
