import type { LightRig } from '@brelvin/contract';
import { newRig } from '../document/new-documents';
import { newLight } from '../document/new-lights';

/** The same light, 1, from everywhere and nothing else. */
export function whiteRoom(): LightRig {
  return { ...newRig('White room'), sun: newLight('sun', { on: false }), ambient: newLight('ambient', { intensity: 1 }) };
}
