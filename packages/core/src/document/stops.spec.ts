import { components } from '../ir/value';
import { callShader } from '../testing/call-shader';
import { colourOfStops, MOST_STOPS } from './stops';

describe('The colour of a gradient', () => {
  const GRADIENTS: readonly (readonly number[])[] = [
    [1, 0.5, 0, 0, 0, 0.25, 1, 1],
    [1, 0, 0, 0.2, 0, 1, 0, 0.5, 0, 0, 1, 0.5, 1, 1, 1, 0.9],
    [0.3, 0.2, 0.1, 0.4],
  ];

  it('is the one that the node Gradient gives', () => {
    for (const stops of GRADIENTS) {
      const all = Array.from({ length: MOST_STOPS }, (_, stop) => {
        const at = Math.min(stop * 4, stops.length - 4);
        return stops.slice(at, at + 4);
      });
      for (let at = -0.1; at <= 1.1; at += 0.0625) {
        const wanted = components(callShader('gradientAt(float,vec4[8])', [at, { items: all }]));
        colourOfStops(stops, at).forEach((each, channel) =>
          expect(each).withContext(`${stops.join()} at ${at}`).toBeCloseTo(wanted[channel]!, 6),
        );
      }
    }
  });

  it('of no stops is black', () => expect(colourOfStops([], 0.5)).toEqual([0, 0, 0]));
});
