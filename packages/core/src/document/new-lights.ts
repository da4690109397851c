import type { LightKind, LightMotion, RigLight } from '@brelvin/contract';

export const STILL_LIGHT: LightMotion = { kind: 'still', speed: 0.1, phase: 0, reach: 1 };

const NAMES: Readonly<Record<LightKind, string>> = {
  ambient: 'Ambient',
  hemisphere: 'Hemisphere',
  sun: 'Sun',
  point: 'Point',
  spot: 'Spot',
};

/** A light of a kind as it is when it is added: it shows at once on a mesh of two metres in the middle. */
export function newLight(kind: LightKind, changes: Partial<RigLight> = {}): RigLight {
  return {
    kind,
    name: NAMES[kind],
    on: true,
    order: 0,
    colour: [1, 1, 1],
    intensity: kind === 'ambient' ? 0.08 : kind === 'hemisphere' ? 0.3 : 1,
    ground: [0.2, 0.16, 0.12],
    direction: kind === 'spot' ? [0, 0.8, 0.6] : [-0.48, 0.64, 0.6],
    position: kind === 'spot' ? [0, 1.6, 1.2] : [0.9, 0.9, 1.3],
    weights: [0, 1, 1],
    falloff: 'none',
    range: 6,
    cone: [0.35, 0.55],
    motion: STILL_LIGHT,
    casts: false,
    softness: 0.015,
    ...changes,
  };
}
