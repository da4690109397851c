import { LONGEST_NAME, type Material } from '@brelvin/contract';

/** The set and the light rig under which new materials stand. Whoever changes one of them gets one of their own. */
export const SHARED_SURROUNDINGS = { set: 'set-plain-sphere', rig: 'rig-north-window' } as const satisfies Material['seenIn'];

export function isShared(id: string): boolean {
  return id === SHARED_SURROUNDINGS.set || id === SHARED_SURROUNDINGS.rig;
}

/** What a material's own set, or its own light rig, is called. */
export function ownName(role: 'set' | 'rig', material: string): string {
  return `${role === 'set' ? 'Set' : 'Light'} of ${material}`.slice(0, LONGEST_NAME);
}
