import { evaluateNumber } from './number-expression';

describe('evaluateNumber', () => {
  const cases: readonly (readonly [string, number])[] = [
    ['3', 3],
    ['1/3', 1 / 3],
    ['pi/4', Math.PI / 4],
    ['2 * (3 + 4)', 14],
    ['-2.5', -2.5],
    ['0,5', 0.5],
    ['90deg', Math.PI / 2],
    ['45°', Math.PI / 4],
    ['sqrt(2)', Math.SQRT2],
    ['7 % 4', 3],
    ['1e3', 1000],
    ['log2(1.25)', Math.log2(1.25)],
    ['clamp(3, 0, 2)', 2],
    ['pow(2, 0.5)', Math.SQRT2],
    ['mix(1, 3, 0.25)', 1.5],
    ['30 deg + 0.5 rad', Math.PI / 6 + 0.5],
    ['0.25 turn', Math.PI / 2],
    ['2 mm', 0.002],
    ['3 nm * 2', 6e-9],
    ['25 %', 0.25],
    ['(50 %) * 4', 2],
  ];
  for (const [text, value] of cases) it(`reads ${text}`, () => expect(evaluateNumber(text)).toBeCloseTo(value, 10));

  it('reads units into that of the field', () => {
    expect(evaluateNumber('30 deg', { unit: '°' })).toBeCloseTo(30, 10);
    expect(evaluateNumber('3.14159265 rad', { unit: '°' })).toBeCloseTo(180, 5);
    expect(evaluateNumber('0.4 µm', { unit: 'nm' })).toBeCloseTo(400, 8);
    expect(evaluateNumber('4 %', { unit: '%' })).toBe(4);
    expect(() => evaluateNumber('30 deg', { unit: 'm' })).toThrowError('“deg” is an angle, and this is a length.');
  });

  it('reads more and less of what is there', () => {
    expect(evaluateNumber('+25 %', { value: 4 })).toBe(5);
    expect(evaluateNumber('-50%', { value: 4 })).toBe(2);
    expect(evaluateNumber('+25 %', { value: 1, unit: 'stops' })).toBeCloseTo(1 + Math.log2(1.25), 10);
    expect(evaluateNumber('-50 %', { value: 1, unit: 'stops' })).toBeCloseTo(0, 10);
    expect(() => evaluateNumber('-100 %', { value: 1, unit: 'stops' })).toThrowError('No exposure makes a picture that much darker.');
    expect(evaluateNumber('7 % 4', { value: 4 })).toBe(3);
  });

  it('says what is wrong in plain words', () => {
    expect(() => evaluateNumber('')).toThrowError(/Expected a value/);
    expect(() => evaluateNumber('2 +')).toThrowError(/Expected a value, found the end/);
    expect(() => evaluateNumber('3 4')).toThrowError(/Expected nothing after "3", found "4"/);
    expect(() => evaluateNumber('phi')).toThrowError('"phi" is no number; did you mean "pi"?');
    expect(() => evaluateNumber('1/0')).toThrowError('This has no finite value.');
    expect(() => evaluateNumber('true')).toThrowError(/Only numbers/);
    expect(() => evaluateNumber('vec3(1)')).toThrowError(/"vec3" is no number/);
  });
});
