import { addStop, colourAt, MOST_STOPS, moveStop, stopsFromValue, valueFromStops, type GradientStop } from './gradient-stops';

const two: GradientStop[] = [
  { colour: [0, 0, 0], at: 0.2 },
  { colour: [1, 0.5, 0], at: 0.8 },
];

describe('Gradient stops', () => {
  it('go into a value and back', () => {
    expect(stopsFromValue(valueFromStops(two))).toEqual(two);
    expect(stopsFromValue([1, 2, 3])).toEqual([]);
  });

  it('mix linearly between neighbours and are flat outside', () => {
    expect(colourAt(two, 0)).toEqual([0, 0, 0]);
    expect(colourAt(two, 0.5)[0]).toBeCloseTo(0.5, 9);
    expect(colourAt(two, 1)).toEqual([1, 0.5, 0]);
    expect(colourAt([], 0.5)).toEqual([0, 0, 0]);
  });

  it('are added in place, without changing the picture', () => {
    const added = addStop(two, 0.5)!;
    expect(added.index).toBe(1);
    for (let at = 0; at <= 1; at += 0.05) expect(colourAt(added.stops, at)[0]).toBeCloseTo(colourAt(two, at)[0], 9);
  });

  it('are never more than there is room for', () => {
    let stops = two;
    for (let count = 0; count < 20; count++) stops = addStop(stops, count / 20)?.stops ?? stops;
    expect(stops.length).toBe(MOST_STOPS);
    expect(addStop(stops, 0.3)).toBeUndefined();
  });

  it('stay between their neighbours', () => {
    const three = addStop(two, 0.5)!.stops;
    expect(moveStop(three, 1, 5)[1]?.at).toBe(0.8);
    expect(moveStop(three, 1, -5)[1]?.at).toBe(0.2);
    expect(moveStop(three, 0, -5)[0]?.at).toBe(0);
  });
});
