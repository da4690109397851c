import { library } from '../catalogue/library';
import { evaluateCall } from '../ir/evaluate';
import { components } from '../ir/value';

/** Scene-linear colours at even steps of the scale on which values are seen, both ends included. */
export function scaleColours(count: number): (readonly number[])[] {
  const { functions } = library().module;
  const scale = functions.get('scaleColour(float)');
  if (!scale) throw new ReferenceError('the shader library must define scaleColour(float)');
  return Array.from({ length: count }, (_, index) =>
    components(evaluateCall(scale, [[index / Math.max(count - 1, 1)]], { functions }).result),
  );
}
