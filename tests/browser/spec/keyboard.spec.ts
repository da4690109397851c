import { Key } from 'selenium-webdriver';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

/** A whole piece of work without touching the pointer. */
describe('The keyboard alone', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open));

  /** Presses Tab until the focus is where the words say, or back to where it began. */
  async function tabTo(words: RegExp): Promise<void> {
    for (let count = 0; count < 120; count++) {
      await bench.keys(Key.TAB);
      const label = await bench.driver.executeScript<string>(
        `const at = document.activeElement;
         // Between the end of the page and its beginning nothing has the focus.
         if (at === document.body) return '';
         return [at.getAttribute('aria-label'), at.textContent, at.title].filter(Boolean).join(' ');`,
      );
      if (words.test(label)) return;
    }
    throw new Error(`no way by Tab to ${words}`);
  }

  it('makes a banded material, connects it, changes it, groups it, takes it back, saves it', async () => {
    await bench.openLibrary();
    await tabTo(/New material/);
    await bench.keys(Key.ENTER);
    await bench.ready();
    const id = (await bench.driver.getCurrentUrl()).split('/').at(-1) ?? '';
    await bench.keys(Key.INSERT);
    await bench.see('.finder input');
    await bench.keys('bands', Key.ENTER);
    await bench.expectCards(3);
    await tabTo(/^Outlet Light, light.*|Outlet Banded|Outlet .*light/);
    const carried = await bench.driver.executeScript<string>('return document.activeElement.dataset.node');
    await bench.keys(Key.ENTER);
    await tabTo(/Inlet Colour, light/);
    await bench.keys(Key.ENTER);
    await bench.saved();
    const { body } = await server.request('GET', `/documents/${id}`);
    const document = body['document'] as { surface: { ribbons: Record<string, { from: string }> } };
    expect(document.surface.ribbons['dock.colour']?.from).toBe(carried);
    await bench.chord(Key.CONTROL, 'a');
    await bench.chord(Key.CONTROL, 'g');
    await bench.expectCards(1);
    await bench.keys(Key.PAGE_DOWN);
    await bench.expectCards(3);
    await bench.keys(Key.PAGE_UP);
    await bench.expectCards(1);
    await bench.undo();
    await bench.expectCards(3);
    await bench.keys(Key.F4);
    await bench.see('.command-list input');
    await bench.keys('show the parts', Key.ENTER);
    await bench.see('.parts-list');
    await tabTo(/^\s*sphere\b/);
    await bench.keys(Key.ENTER);
    await bench.see('brelvin-part-dressing');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('goes to each area of the Bench with one key, out of a field of text too', async () => {
    const place = (css: string): Promise<boolean> =>
      bench.driver.executeScript<boolean>('return document.activeElement.closest(arguments[0]) !== null;', css);
    const go = async (digit: string): Promise<void> => {
      await bench.driver.actions().keyDown(Key.ALT).keyDown(Key.SHIFT).sendKeys(digit).keyUp(Key.SHIFT).keyUp(Key.ALT).perform();
    };
    const areas = [
      '.bench-bar',
      '.graph-surface, .code-view',
      '.dock',
      '.bench-stage',
      '[data-tab="parameters"]',
      '.panel-about',
      '.panel-light',
    ];
    await bench.press('graph', '.graph-bar');
    for (const [index, css] of areas.entries()) {
      await go(String(index + 1));
      expect(await place(css))
        .withContext(css)
        .toBeTrue();
    }
    await bench.keys(Key.F4);
    await bench.see('.command-list input');
    await bench.keys('dock');
    expect(await bench.text('#command-entries')).toContain('Alt Shift 3');
    await go('4');
    expect(await place('.bench-stage')).toBeTrue();
    await bench.keys('?');
    const keys = await bench.text('.keys-help');
    for (const each of ['Insert', 'F4', 'Ctrl G', 'Ctrl D', 'Ctrl E', 'Ctrl L', 'Alt Shift 1']) expect(keys).toContain(each);
    await bench.keys(Key.ESCAPE);
  });
});
