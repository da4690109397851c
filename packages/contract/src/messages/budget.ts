import { number, object, optional, whole, type TypeOf } from '../schema/schema';

/** What materials of a workspace may cost. What is absent is not bounded. */
export const BUDGET = object({
  instructions: optional(whole(1, 1e9), 'At each pixel, as they are estimated; without shadows and occlusion.'),
  reads: optional(whole(0, 1e6), 'Of images at each pixel, without shadows and occlusion.'),
  milliseconds: optional(number(0.01, 1e6), 'Of a whole picture of 1920 × 1080, measured on the machine that draws it.'),
});

export interface Budget extends TypeOf<typeof BUDGET> {}
