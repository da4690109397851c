import type { InletValue, MaterialParameter } from '@brelvin/contract';
import { openSides, type InletSpec } from '@brelvin/core';
import type { NumberRange } from '../../shared/controls/number-drag';
import type { ImageUser } from '../images/image-placer';

/** What a value is: which control fits, and what that control has to know. */
export interface ValueSpec {
  readonly kind: 'number' | 'ior' | 'colour' | 'vector' | 'choice' | 'switch' | 'stops' | 'image';
  readonly label: string;
  readonly help?: string;
  /** Of numbers. */
  readonly range?: NumberRange;
  readonly suffix?: string;
  /** Of a choice: words by its number. */
  readonly choices?: readonly string[];
  /** Of an image: who shows it, and whether it is read by direction. */
  readonly user?: ImageUser;
  readonly cube?: boolean;
}

export interface ValueChange {
  readonly value: InletValue;
  readonly gesture?: string;
}

/** @param user who shows its image */
export function specOfParameter(parameter: MaterialParameter, user?: ImageUser): ValueSpec {
  const { name, type, low, high, choices } = parameter;
  const kind = type === 'count' ? 'number' : type;
  return { kind, label: name, range: { low, high, whole: type === 'count' }, choices, user };
}

/** @param size how many numbers its value has */
export function specOfInlet({ meaning, label, help, low, high, choices }: InletSpec, size: number, node: string): ValueSpec {
  const image = meaning === 'image' || meaning === 'cubeImage';
  const range: NumberRange = { low, high, open: openSides({ meaning, low }), whole: meaning === 'count' };
  return {
    kind: kindOf(meaning, size, choices),
    label,
    help,
    range,
    choices,
    ...(image && { user: { node }, cube: meaning === 'cubeImage' }),
  };
}

/** What a map is multiplied by before the inlet takes it. */
export function specOfFactor({ meaning, label }: Pick<InletSpec, 'meaning' | 'label'>): ValueSpec {
  const help = `${label} is what the map gives, multiplied by this.`;
  return { kind: meaning === 'colour' ? 'colour' : 'number', label: `${label}, factor`, help, range: { low: 0, high: 1, open: 'above' } };
}

function kindOf(meaning: InletSpec['meaning'], size: number, choices: InletSpec['choices']): ValueSpec['kind'] {
  if (meaning === 'cubeImage') return 'image';
  if (meaning === 'stops' || meaning === 'image') return meaning;
  if (choices) return 'choice';
  if (meaning === 'ior' || meaning === 'colour') return meaning;
  return size > 1 ? 'vector' : 'number';
}
