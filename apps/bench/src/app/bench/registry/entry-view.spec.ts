import { provideZonelessChangeDetection, signal, type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { shownView, type EntryView, type ShownView } from './entry-view';

class Here {}
class Later {}

describe('The view of what is shown', () => {
  const settled = async (): Promise<void> => {
    TestBed.tick();
    await new Promise((resolve) => setTimeout(resolve));
  };
  let answers: (Type<unknown> | Error)[];
  let asked: number;
  const load = async (): Promise<Type<unknown>> => {
    asked++;
    const answer = answers.shift() ?? Later;
    if (answer instanceof Error) throw answer;
    return answer;
  };
  const here: { id: string; view: EntryView } = { id: 'here', view: Here };
  const later: { id: string; view: EntryView } = { id: 'later', view: { opens: 'the cost', load } };
  const shown = signal<typeof here | undefined>(undefined);

  function view(): ShownView {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    return TestBed.runInInjectionContext(() => shownView(shown));
  }

  beforeEach(() => {
    [answers, asked] = [[], 0];
    shown.set(undefined);
  });

  it('is there at once where the page came with it', () => {
    const each = view();
    expect([each.view(), each.waiting()]).toEqual([undefined, '']);
    shown.set(here);
    expect([each.view(), each.waiting()]).toEqual([Here, '']);
  });

  it('is fetched when it is first shown, once, and says meanwhile what is opened', async () => {
    const each = view();
    shown.set(later);
    expect([each.view(), each.waiting()]).toEqual([undefined, 'Opening the cost …']);
    await settled();
    expect(each.view()).toBe(Later);
    shown.set(here);
    await settled();
    expect(each.view()).toBe(Here);
    shown.set(later);
    await settled();
    expect([each.view(), asked]).toEqual([Later, 1]);
  });

  it('that cannot be had says so, and is asked for again when it is shown again', async () => {
    const each = view();
    answers = [new Error('away')];
    shown.set(later);
    await settled();
    expect(each.view()).toBeUndefined();
    expect(each.waiting()).toContain('could not be loaded');
    shown.set(here);
    await settled();
    shown.set(later);
    await settled();
    expect([each.view(), asked]).toEqual([Later, 2]);
  });
});
