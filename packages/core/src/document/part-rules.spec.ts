import type { PartRule } from '@brelvin/contract';
import { newSet } from './new-documents';
import { overridesOf, materialsOf, ruleFits } from './part-rules';

const rule = (order: number, pattern: string, rest: Partial<PartRule> = {}): PartRule => ({ order, pattern, values: {}, ...rest });

describe('Rules for parts', () => {
  it('fit by name, by pattern, and by mesh', () => {
    expect(ruleFits(rule(0, 'eyes'), 'head', 'Eyes')).toBeTrue();
    expect(ruleFits(rule(0, '*wall'), 'room', 'left wall')).toBeTrue();
    expect(ruleFits(rule(0, 'eye'), 'head', 'eyes')).toBeFalse();
    expect(ruleFits(rule(0, 'eyes, *wall'), 'room', 'left wall')).toBeTrue();
    expect(ruleFits(rule(0, 'eyes,*wall'), 'head', 'Eyes')).toBeTrue();
    expect(ruleFits(rule(0, 'eyes, *wall'), 'head', 'mouth')).toBeFalse();
    expect(ruleFits(rule(0, 'eye, left', { mesh: 'head' }), 'head', 'eye, left')).toBeTrue();
    expect(ruleFits(rule(0, 'a.c'), 'head', 'abc')).toBeFalse();
    expect(ruleFits(rule(0, '*', { mesh: 'lamp' }), 'head', 'eyes')).toBeFalse();
  });

  it('go on top of one another in order', () => {
    const set = {
      ...newSet('s'),
      partRules: {
        b: rule(2, 'eyes', { material: 'paint', depthOffset: 0.3, values: { shine: 1 } }),
        a: rule(1, '*', { material: 'skin', drawOrder: 1, values: { shine: 0, tint: [1, 0, 0] } }),
      },
    };
    expect(overridesOf(set, 'm', 'eyes')).toEqual(jasmine.objectContaining({ material: 'paint', depthOffset: 0.3, drawOrder: 1 }));
    expect(overridesOf(set, 'm', 'eyes').values as object).toEqual({ shine: 1, tint: [1, 0, 0] });
    expect(overridesOf(set, 'm', 'nose').material).toBe('skin');
    expect(overridesOf(newSet('s'), 'm', 'nose').material).toBeUndefined();
    expect([...materialsOf(set)].sort()).toEqual(['paint', 'skin']);
  });
});
