import { library } from './library';
import { evaluateCall } from '../ir/evaluate';
import { components } from '../ir/value';

/**
 * The colour of a glowing black body, scene-linear Rec. 709, its brightest channel 1: what the node “Temperature” gives.
 *
 * @param kelvin 1,000 to 15,000; beyond, the nearer end counts
 */
export function temperatureColour(kelvin: number): [number, number, number] {
  const { functions } = library().module;
  const formula = functions.get('temperatureColour(float)');
  if (!formula) throw new ReferenceError('the shader library must define temperatureColour(float)');
  const [red = 0, green = 0, blue = 0] = components(evaluateCall(formula, [[kelvin]], { functions }).result);
  return [red, green, blue];
}

export const COLDEST_KELVIN = 1000;
export const HOTTEST_KELVIN = 15_000;
