import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Budget } from '@brelvin/contract';
import { type PartCost, newLight, newMesh, newRig, newSet, numberedLights } from '@brelvin/core';
import { BudgetApi } from '../../shared/api/budget-api';
import { FaultHandler } from '../../shared/notices/fault-handler';
import { BudgetShelf } from './budget-shelf';
import { costsOfNodes } from './cost-watch';
import { costWords, msWords } from './cost-words';
import { growthSteps, withCopies, withLights } from './frame-times';

describe('What is drawn to see how the cost grows', () => {
  const rig = { ...newRig('r'), lights: { a: newLight('point', { order: 1 }), b: newLight('point', { order: 2, on: false }) } };

  it('has as many lights as are asked for, its own before others', () => {
    for (const count of [1, 2, 4, 8]) expect(numberedLights(withLights(rig, count)).length).toBe(count);
    expect(numberedLights(withLights(rig, 2)).map(([id]) => id)).toEqual(numberedLights(rig).map(([id]) => id));
    // What is off stays off, and what is added throws no shadow.
    const many = withLights(rig, 8);
    expect(many.lights['b']?.on).toBeFalse();
    expect(Object.entries(many.lights).every(([id, light]) => !id.startsWith('measured') || !light.casts)).toBeTrue();
  });

  it('leaves ambient light as it is', () => {
    const lit = { ...rig, lights: { ...rig.lights, around: newLight('ambient') } };
    expect(withLights(lit, 1).lights['around']?.on).toBeTrue();
  });

  it('has every mesh in a square of copies, without the floor', () => {
    const set = { ...newSet('s'), meshes: { a: newMesh('sphere'), b: newMesh('torus') } };
    const many = withCopies(set, 4);
    expect(Object.values(many.meshes).map(({ copies }) => copies.columns * copies.rows)).toEqual([16, 16]);
    expect(many.floor.shown).toBeFalse();
    expect(set.meshes.a.copies.columns).toBe(1);
  });

  it('begins with little', () => {
    const size = { width: 480, height: 532 };
    const pixels = growthSteps('pixels', { size, rig }).map(({ count }) => count);
    expect(pixels).toEqual([...pixels].sort((a, b) => a - b));
    expect(pixels.at(-1)).toBe(480 * 532);
    expect(growthSteps('copies', { size, rig }).map(({ count }) => count)).toEqual([1, 4, 16, 36]);
    expect(growthSteps('lights', { size, rig }).map(({ count }) => count)).toEqual([1, 2, 4, 8]);
  });
});

describe('The budget of the workspace', () => {
  let stored: Budget;
  const written: Budget[] = [];
  const faults = { report: jasmine.createSpy('report') };
  let answer: (budget: Budget) => void;
  let write: (budget: Budget) => Promise<Budget>;

  function shelf(): BudgetShelf {
    const read = new Promise<Budget>((resolve) => (answer = resolve));
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        BudgetShelf,
        { provide: BudgetApi, useValue: { read: () => read, write: (budget: Budget) => write(budget) } },
        { provide: FaultHandler, useValue: faults },
      ],
    });
    return TestBed.inject(BudgetShelf);
  }

  beforeEach(() => {
    stored = { reads: 4 };
    written.length = 0;
    faults.report.calls.reset();
    write = async (budget) => (written.push(budget), budget);
  });

  const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

  it('is what the server has, and is written when it is changed', async () => {
    const budget = shelf();
    answer(stored);
    await settled();
    expect(budget.budget()).toEqual({ reads: 4 });
    budget.bound('instructions', 2000);
    budget.bound('reads', undefined);
    expect(budget.budget()).toEqual({ instructions: 2000 });
    await settled();
    expect(written).toEqual([{ reads: 4, instructions: 2000 }, { instructions: 2000 }]);
  });

  it('is what was said here, though the server answers late', async () => {
    const budget = shelf();
    budget.bound('reads', 9);
    answer(stored);
    await settled();
    expect(budget.budget()).toEqual({ reads: 9 });
    expect(written).toEqual([{ reads: 9 }]);
  });

  it('says when it was not saved, and takes the next one', async () => {
    const budget = shelf();
    answer(stored);
    write = () => Promise.reject(new Error('away'));
    budget.bound('reads', 9);
    await settled();
    expect(faults.report).toHaveBeenCalledOnceWith('The budget was not saved', jasmine.any(Error));
    write = async (next) => (written.push(next), next);
    budget.bound('reads', 10);
    await settled();
    expect(written).toEqual([{ reads: 10 }]);
  });
});

describe('Costs on cards', () => {
  const part = (node: string, pixel: number, vertex = 0): PartCost => ({
    place: { node },
    pixel: { instructions: pixel, reads: 0 },
    vertex: { instructions: vertex, reads: 0 },
  });

  it('are those of the nodes, and of a group all in it', () => {
    const costs = costsOfNodes([part('a', 5), part('g/b', 7), part('g/h/c', 11, 3), part('v', 0, 4)]);
    const found = Object.fromEntries([...costs].map(([path, { instructions }]) => [path, instructions]));
    expect(found).toEqual({ a: 5, g: 18, 'g/b': 7, 'g/h': 11, 'g/h/c': 11, v: 4 });
  });

  it('leave out lines of code', () => {
    expect(costsOfNodes([{ ...part('', 5), place: { text: 'code', line: 3 } }]).size).toBe(0);
  });
});

describe('Costs in words', () => {
  it('are short, with thousands apart', () => {
    expect(costWords({ instructions: 13659, reads: 1 })).toBe('13,659 instructions, 1 read');
    expect([0.034, 4.26, 12.34, 1360.4].map(msWords)).toEqual(['0.03 ms', '4.26 ms', '12.3 ms', '1360 ms']);
  });
});
