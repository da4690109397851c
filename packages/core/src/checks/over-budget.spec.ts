import { checkBudget } from './over-budget';
import type { MaterialCost } from '../cost/material-cost';

const cost = { pixel: { instructions: 797, reads: 3 } } as MaterialCost;

describe('A budget', () => {
  const titles = (spent: Parameters<typeof checkBudget>[0]): string[] => checkBudget(spent).map(({ title }) => title);

  it('is held by what is estimated and by what was measured', () => {
    const budget = { instructions: 700, reads: 2, milliseconds: 4 };
    expect(titles({ budget, cost, milliseconds: 4.26 })).toEqual([
      '797 instructions where 700 are allowed.',
      '3 reads of images where 2 are allowed.',
      '4.3 milliseconds where 4 are allowed.',
    ]);
  });

  it('says nothing of what is kept, not bounded, or not known', () => {
    expect(titles({ budget: { instructions: 797, reads: 3, milliseconds: 4 }, cost, milliseconds: 4 })).toEqual([]);
    expect(titles({ cost, milliseconds: 400 })).toEqual([]);
    expect(titles({ budget: { instructions: 1, reads: 0, milliseconds: 1 } })).toEqual([]);
    expect(titles({ budget: {}, cost })).toEqual([]);
  });

  it('bounds also what reads nothing', () => {
    expect(titles({ budget: { reads: 0 }, cost })).toEqual(['3 reads of images where 0 are allowed.']);
  });

  it('can be switched off for each of its bounds', () => {
    const places = checkBudget({ budget: { instructions: 1, reads: 1 }, cost }).map(({ place }) => place);
    expect(new Set(places).size).toBe(2);
  });
});
