import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Key } from 'selenium-webdriver';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { underPlainDay } from '../support/plain-day';
import { withBench } from '../support/with-bench';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  readonly id: string;
  readonly nodes: { readonly html: string; readonly failureSummary: string }[];
}

/** Elements whose colour is the user's own. */
const USERS_COLOURS = '.swatch, .outlet-swatch, .gradient-bar, .colour-square, .stage-canvas, img, canvas';

/** Keys reach it from the field that it completes, by `aria-activedescendant`: the focus stays there, so the list takes none. */
const SCROLLED_BY_ITS_FIELD = 'aria-label="Completions"';

describe('Looks', () => {
  let browser: Browser;
  let bench: Bench;

  let server: ServerProcess;

  withBench((open) => ({ browser, bench, server } = open));

  async function violations(): Promise<string[]> {
    await bench.driver.executeScript(AXE);
    const found = await bench.driver.executeAsyncScript<Violation[]>(
      'const done = arguments[0]; axe.run(document, { resultTypes: ["violations"] }).then((result) => done(result.violations));',
    );
    return found.flatMap(({ id, nodes }) =>
      nodes
        .filter(({ html }) => id !== 'scrollable-region-focusable' || !html.includes(SCROLLED_BY_ITS_FIELD))
        .slice(0, 3)
        .map((node) => `${id}: ${node.html.slice(0, 160)} — ${node.failureSummary.replace(/\s+/g, ' ')}`),
    );
  }

  /** Colours on the page that are not pure grey. */
  async function tints(): Promise<string[]> {
    return bench.driver.executeScript<string[]>(
      `const found = new Set();
       for (const element of document.querySelectorAll('body, body *')) {
         if (element.closest(arguments[0])) continue;
         for (const part of [null, '::before', '::after']) {
           const style = getComputedStyle(element, part);
           if (part && style.content === 'none') continue;
           for (const name of ['color', 'backgroundColor', 'borderTopColor', 'borderBottomColor', 'outlineColor', 'fill', 'stroke']) {
             const [r, g, b] = (style[name].match(/\\d+(\\.\\d+)?/g) || []).map(Number);
             if (style[name].startsWith('rgb') && (r !== g || g !== b)) found.add(element.className + (part || '') + ' ' + name + ' ' + style[name]);
           }
         }
       }
       return [...found];`,
      USERS_COLOURS,
    );
  }

  for (const room of ['Dark', 'Mid', 'Light']) {
    it(`are achromatic and accessible in the ${room} room`, async () => {
      await bench.openLibrary();
      await bench.press(room, 'brelvin-theme-switch');
      await bench.driver.wait(async () => (await bench.all('img.library-picture')).length >= 6, 60_000, 'pictures');
      expect(await tints()).toEqual([]);
      expect(await violations()).toEqual([]);
      await bench.press('Images', '.library-head');
      await bench.see('.library-image');
      expect(await violations()).toEqual([]);
      await bench.openMaterial(await underPlainDay(server, 'material-puppet-hair'));
      expect(await tints()).toEqual([]);
      expect(await violations()).toEqual([]);
      await bench.press('history', '.panel-tabs');
      await bench.press('parts', '.graph-bar');
      await bench.click('.parts-part');
      const parts = await bench.see('brelvin-mesh-place').then(() => bench.see('.parts-view'));
      const beyond = 'return arguments[0].scrollWidth - arguments[0].clientWidth';
      expect(await bench.driver.executeScript(beyond, parts))
        .withContext('pixels that only scrolling sideways shows')
        .toBeLessThanOrEqual(0);
      expect(await tints()).toEqual([]);
      expect(await violations()).toEqual([]);
      // A copy for each room: what is typed may be saved before it is taken back.
      await bench.openMaterial(await underPlainDay(server, 'material-slate-of-tides'));
      await bench.press('checks', '.panel-tabs');
      await bench.click('.parameter-row .text-button');
      await bench.click('.cm-content');
      await bench.chord(Key.CONTROL, Key.END);
      await bench.keys(Key.ARROW_LEFT);
      await bench.see('.cm-matchingBracket');
      expect(await tints()).toEqual([]);
      await bench.chord(Key.CONTROL, 'a');
      await bench.see('.cm-selectionBackground');
      expect(await tints()).toEqual([]);
      await bench.chord(Key.CONTROL, Key.HOME);
      await bench.keys(')');
      await bench.see('.cm-nonmatchingBracket');
      await bench.see('.cm-lintPoint, .cm-lintRange-error');
      expect(await tints()).toEqual([]);
      await bench.keys('nor');
      await bench.see('.cm-tooltip-autocomplete');
      await bench.see('.code-problems');
      expect(await tints()).toEqual([]);
      expect(await violations()).toEqual([]);
      await bench.keys(Key.ESCAPE);
      await bench.undo();
      await bench.keys(Key.F4);
      await bench.see('.command-list');
      expect(await tints()).toEqual([]);
      expect(await violations()).toEqual([]);
      await bench.keys(Key.ESCAPE);
      await bench.press('light rig', '.bench-bar');
      await bench.see('.picker-entry');
      expect(await violations()).toEqual([]);
      await bench.keys(Key.ESCAPE);
      expect(await bench.driver.executeScript('return document.documentElement.dataset.room')).toBe(room.toLowerCase());
    });
  }

  it('survive a narrow window: the Stage goes on top', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-kite-dusk'));
    await browser.resize(800, 900);
    const stage = await (await bench.see('.bench-stage')).getRect();
    const graph = await (await bench.see('.bench-graph')).getRect();
    expect(stage.y).toBeLessThan(graph.y);
    await browser.resize(1280, 800);
  });

  it('give the Stage more room when its edge is dragged, and remember it', async () => {
    const cheek = await underPlainDay(server, 'material-puppet-cheek');
    await bench.openMaterial(cheek);
    const width = async (): Promise<number> => (await (await bench.see('.bench-stage')).getRect()).width;
    const before = await width();
    const edge = await bench.middle(await bench.see('.stage-edge'));
    await bench.drag(edge, { x: edge.x - 60, y: edge.y }, { x: edge.x - 120, y: edge.y });
    expect(await width()).toBe(before + 120);
    await bench.openMaterial(cheek);
    expect(await width()).toBe(before + 120);
    await bench.keys(Key.F9);
    expect(await width()).toBe(1280);
    expect((await bench.all('.graph-surface')).length).toBe(1);
    await bench.keys(Key.F9);
    await bench.driver.executeScript('localStorage.clear()');
  });

  it('give the panels below more room when their edge is dragged or moved by keys, remember it, and forget it on two presses', async () => {
    const cheek = await underPlainDay(server, 'material-puppet-cheek');
    await bench.openMaterial(cheek);
    const height = async (): Promise<number> => (await (await bench.see('.bench-panels')).getRect()).height;
    const before = await height();
    const edge = await bench.middle(await bench.see('.panels-edge'));
    await bench.drag(edge, { x: edge.x, y: edge.y - 40 }, { x: edge.x, y: edge.y - 90 });
    expect(await height()).toBe(before + 90);
    await bench.keys(Key.ARROW_DOWN);
    expect(await height())
      .withContext('24 less by a key: the press has given the edge the focus')
      .toBe(before + 66);
    await bench.openMaterial(cheek);
    expect(await height()).toBe(before + 66);
    await bench.driver
      .actions()
      .doubleClick(await bench.see('.panels-edge'))
      .perform();
    expect(await height()).toBe(before);
  });

  it('cut no label of the panels below, with parameters and without', async () => {
    for (const id of ['material-puppet-cheek', 'material-puppet-sash']) {
      await bench.openMaterial(await underPlainDay(server, id));
      for (const panel of ['.panel-about', '.panel-light'])
        for (const tab of await bench.all(`${panel} [role="tab"]`)) {
          await tab.click();
          const cut = await bench.driver.executeScript<string[]>(
            `return [...document.querySelectorAll('.bench-panels :is(.field-label, .term-name, button, .about-material dt)')]
              .filter((each) => each.checkVisibility() && each.scrollWidth > each.clientWidth + 1 && getComputedStyle(each).overflow !== 'visible'
                || each.getBoundingClientRect().right > each.closest('.panel').getBoundingClientRect().right + 1)
              .map((each) => each.textContent.trim());`,
          );
          expect(cut)
            .withContext(`${id}, ${await tab.getText()}`)
            .toEqual([]);
        }
    }
  });

  it('never let a panel cover the Stage', async () => {
    await bench.openMaterial(await underPlainDay(server, 'material-puppet-cheek'));
    await bench.click('[data-kind="rim"] .swatch');
    await bench.see('.colour-picker');
    const stage = await (await bench.see('.stage-canvas')).getRect();
    const picker = await (await bench.see('.colour-picker')).getRect();
    expect(picker.x + picker.width).toBeLessThanOrEqual(stage.x);
    await bench.keys(Key.ESCAPE);
    for (const [button, panel] of [
      ['mesh:', '.mesh-panel'],
      ['light rig', '.picker-list'],
      ['set', '.picker-list'],
    ] as const) {
      await bench.press(button);
      const box = await (await bench.see(panel)).getRect();
      expect(box.x + box.width)
        .withContext(panel)
        .toBeLessThanOrEqual(stage.x);
      await bench.keys(Key.ESCAPE);
      await bench.driver.wait(async () => (await bench.all(panel)).length === 0, 60_000, `${panel} closes`);
    }
  });

  it('run without a word on the console', async () => {
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
