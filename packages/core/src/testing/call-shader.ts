import type { LightRig } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { newRig } from '../document/new-documents';
import { newLight } from '../document/new-lights';
import { frameGlobals } from '../frame/uniforms';
import { evaluateCall } from '../ir/evaluate';
import { components, isStruct, type Value } from '../ir/value';
import { START_CAMERA } from '../scene/camera';

/** Evaluates a function of the shader library on the CPU, for tests of its formula. */
export function callShader(signature: string, args: readonly (number | Value)[], globals: ReadonlyMap<string, Value> = new Map()): Value {
  const { functions } = library().module;
  const declared = functions.get(signature);
  if (!declared) throw new RangeError(`the library has no ${signature}`);
  const values = args.map((arg) => (typeof arg === 'number' ? [arg] : arg));
  return evaluateCall(declared, values, { functions, globals }).result;
}

export function callNumber(signature: string, ...args: (number | readonly number[])[]): number {
  return components(callShader(signature, args))[0] ?? NaN;
}

export function callVector(signature: string, ...args: (number | readonly number[])[]): readonly number[] {
  return components(callShader(signature, args));
}

/** One term of a lighting function's result. */
export function term(lit: Value, name: string): readonly number[] {
  if (!isStruct(lit)) throw new TypeError('expected Lit');
  const value = lit.fields[name];
  if (value === undefined) throw new RangeError(`Lit has no ${name}`);
  return components(value);
}

/** Globals of a scene with one sun. */
export function oneLight(
  direction: readonly number[],
  colour: readonly number[] = [1, 1, 1],
  ambient: readonly number[] = [0, 0, 0],
): ReadonlyMap<string, Value> {
  const sun = newLight('sun', { direction, colour, intensity: 1 });
  return rigGlobals({ ...newRig(''), sun, ambient: newLight('ambient', { colour: ambient, intensity: 1 }) });
}

/** Globals of a rig's lights, at a point of the surface. */
export function rigGlobals(rig: LightRig, position: readonly number[] = [0, 0, 0], seconds = 0): ReadonlyMap<string, Value> {
  return new Map([
    ...frameGlobals(START_CAMERA, rig, { width: 1, height: 1 }, { seconds, lightSeconds: seconds }),
    ['worldPosition', position] as const,
  ]);
}
