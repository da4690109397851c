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
  ];
  for (const [text, value] of cases) it(`reads ${text}`, () => expect(evaluateNumber(text)).toBeCloseTo(value, 10));

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
