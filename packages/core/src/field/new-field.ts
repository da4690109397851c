import type { DistanceField } from '@brelvin/contract';
import { FIRST_FIELD } from './read-field';

export function newDistanceField(name: string, text = FIRST_FIELD): DistanceField {
  return { format: 'brelvin-field', version: 1, name, tags: [], text };
}
