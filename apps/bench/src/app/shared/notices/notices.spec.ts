import { ErrorHandler, provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { ApiFailure } from '../api/request';
import { FaultHandler } from './fault-handler';
import { NoticeList } from './notice-list';
import { Notices } from './notices';

describe('Notices', () => {
  let notices: Notices;
  let fixture: ComponentFixture<NoticeList>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const texts = (): (string | undefined)[] => [...page().querySelectorAll('.notice-words')].map((each) => each.textContent?.trim());
  const press = async (words: string): Promise<void> => {
    const button = [...page().querySelectorAll('button')].find((each) =>
      (each.getAttribute('aria-label') ?? each.textContent ?? '').includes(words),
    );
    button!.click();
    await fixture.whenStable();
  };

  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: ErrorHandler, useExisting: FaultHandler }],
    });
    notices = TestBed.inject(Notices);
    fixture = TestBed.createComponent(NoticeList);
  });

  it('stand below each other until they are closed; the same is said once, with how often', async () => {
    notices.say('first');
    notices.say('second');
    notices.say('first');
    await fixture.whenStable();
    expect(texts()).toEqual(['first (2 times)', 'second']);
    await press('Close the notice');
    expect(texts()).toEqual(['second']);
    for (let count = 0; count < 9; count++) notices.say(`more ${count}`);
    expect(notices.shown().length).toBe(4);
  });

  it('tell of work, which can be cancelled, and what it offers in the end', async () => {
    const work = notices.work('reading …');
    work.progress(0.5);
    await fixture.whenStable();
    expect(page().querySelector('progress')?.value).toBe(0.5);
    await press('Cancel');
    expect(work.signal.aborted).toBeTrue();
    let opened = 0;
    work.end('There it is.', [{ words: 'Open', run: () => void opened++ }]);
    await fixture.whenStable();
    expect(page().querySelector('progress')).toBeNull();
    await press('Open');
    expect([opened, texts()]).toEqual([1, []]);
  });

  it('tell of errors that nobody caught, with details to be copied', async () => {
    spyOn(console, 'error');
    const written = spyOn(navigator.clipboard, 'writeText').and.resolveTo();
    TestBed.inject(ErrorHandler).handleError(new TypeError('nothing there'));
    await fixture.whenStable();
    expect(texts()[0]).toContain('Something in Brelvin went wrong: nothing there.');
    await press('Copy details');
    expect(written.calls.mostRecent().args[0]).toMatch(/TypeError: nothing there/);
    TestBed.inject(ErrorHandler).handleError(new ApiFailure(0, 'unreachable', 'The server cannot be reached.'));
    expect(notices.shown().at(-1)?.words).toBe('The server cannot be reached.');
  });
});
