import { elaborate } from '../language';
import { call } from './build';
import { RateAnalysis, fasterRate, type Rate } from './rate';

function rateOf(code: string, name: string): Rate {
  const { module } = elaborate('rates', code);
  const declared = [...module.functions.values()].find((each) => each.name === name);
  if (!declared) throw new Error(`no ${name}`);
  return new RateAnalysis(module).ofExpression(call(declared, []));
}

describe('RateAnalysis', () => {
  const code = `
    uniform Frame { float time; };
    in vec2 uv;
    float steady() { return 1.0; }
    float swing() { return sin(time) + steady(); }
    float through() { return swing() * 2.0; }
    float place() { return uv.x; }
    float edges() { return fwidth(steady()); }`;

  it('finds how often functions must run', () => {
    expect(rateOf(code, 'steady')).toBe('constant');
    expect(rateOf(code, 'swing')).toBe('frame');
    expect(rateOf(code, 'through')).toBe('frame');
    expect(rateOf(code, 'place')).toBe('pixel');
    expect(rateOf(code, 'edges')).toBe('pixel');
  });

  it('takes the faster of two', () => {
    expect(fasterRate('frame', 'constant')).toBe('frame');
    expect(fasterRate('vertex', 'pixel')).toBe('pixel');
  });
});
