import { ElementRef, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { ListChoice } from './list-choice';

describe('A choice in a searched list', () => {
  const query = signal('');
  const found = signal<readonly string[]>([]);
  let choice: ListChoice<string>;
  let taken: string[];
  let left: number;

  beforeEach(() => {
    [taken, left] = [[], 0];
    query.set('');
    found.set(['bands', 'blend', 'bloom']);
    const host = document.createElement('div');
    host.innerHTML = '<p id="entry-0"></p><p id="entry-1"></p><p id="entry-2"></p>';
    TestBed.configureTestingModule({ providers: [{ provide: ElementRef, useValue: new ElementRef(host) }] });
    choice = TestBed.runInInjectionContext(() => new ListChoice('entry-', query, found));
  });

  function press(...keys: string[]): KeyboardEvent[] {
    return keys.map((key) => {
      const event = new KeyboardEvent('keydown', { key, cancelable: true });
      choice.key(event, { take: (entry) => taken.push(entry), leave: () => left++ });
      return event;
    });
  }

  it('moves by arrows and stops at both ends', () => {
    press('ArrowDown', 'ArrowDown', 'ArrowDown', 'Enter');
    press('ArrowUp', 'Enter', 'ArrowUp', 'ArrowUp', 'Enter');
    expect(taken).toEqual(['bloom', 'blend', 'bands']);
  });

  it('goes to what the pointer goes to, and not to what comes under a pointer that rests', () => {
    choice.hover(new PointerEvent('pointermove', { movementX: 0, movementY: 3 }), 2);
    expect(choice.entry).toBe('bloom');
    choice.hover(new PointerEvent('pointermove'), 1);
    expect(choice.index()).toBe(2);
    found.set(['bands']);
    expect(choice.entry).withContext('a shorter list still has a choice').toBe('bands');
  });

  it('begins anew with each search', () => {
    press('ArrowDown');
    query.set('bl');
    found.set(['blend', 'bloom']);
    expect(choice.index()).toBe(0);
    expect(choice.entry).toBe('blend');
  });

  it('takes nothing where nothing is found, and leaves on Escape', () => {
    found.set([]);
    const [, enter, escape] = press('ArrowDown', 'Enter', 'Escape');
    expect(choice.index()).toBe(0);
    expect(choice.entry).toBeUndefined();
    expect(taken).toEqual([]);
    expect(enter?.defaultPrevented).toBeFalse();
    expect(left).toBe(1);
    expect(escape?.defaultPrevented).toBeTrue();
  });

  it('lets letters through to the field', () => {
    expect(press('b')[0]?.defaultPrevented).toBeFalse();
  });
});
