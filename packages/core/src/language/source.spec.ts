import { nearestName } from './nearest-name';
import { SourceText } from './source';

describe('SourceText', () => {
  it('counts lines and columns from one', () => {
    const source = new SourceText('f', 'ab\n\ncd\n');
    expect([0, 1, 2, 3, 4, 5, 7].map((offset) => Object.values(source.position(offset)).join(':'))).toEqual([
      '1:1',
      '1:2',
      '1:3',
      '2:1',
      '3:1',
      '3:2',
      '4:1',
    ]);
    expect(source.slice({ from: 4, to: 6 })).toBe('cd');
  });

  it('finds places in long texts quickly', () => {
    const source = new SourceText('f', 'x\n'.repeat(100_000));
    expect(source.position(199_998)).toEqual({ line: 100_000, column: 1 });
  });
});

describe('nearestName', () => {
  const names = ['smoothstep', 'step', 'mix', 'normalize', 'width'];

  it('forgives a third of the letters', () => {
    expect(nearestName('smothstep', names)).toBe('smoothstep');
    expect(nearestName('normalise', names)).toBe('normalize');
    expect(nearestName('widht', names)).toBe('width');
    expect(nearestName('MIX', names)).toBe('mix');
  });

  it('offers nothing that is far off', () => {
    expect(nearestName('colour', names)).toBeUndefined();
    expect(nearestName('', names)).toBeUndefined();
  });
});
