import { newRig } from '../document/new-documents';
import { newLight } from '../document/new-lights';
import type { LightRig } from '../document/light-rig';

/** The same light, 1, from everywhere and nothing else. */
export function whiteRoom(): LightRig {
  return { ...newRig('White room'), sun: newLight('sun', { on: false }), ambient: newLight('ambient', { intensity: 1 }) };
}
