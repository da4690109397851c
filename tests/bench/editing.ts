import type { Material } from '@brelvin/contract';
import { newMaterial } from '@brelvin/core';
import { ALL_PIXELS, Browser } from '../browser/support/browser';
import { Bench } from '../browser/support/bench';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';
import { wideMaterial } from './graphs';
import { PATIENCE, spread } from './measure';
import type { Report } from './report';

const SIZES = [20, 200, 2000];

/** Runs in the page: does something so many times, each time until the page has drawn. */
const REPEAT = `
  const [kind, rounds, done] = arguments;
  const surface = document.querySelector('.graph-surface');
  const box = surface.getBoundingClientRect();
  const drawn = () => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
  const point = (type, dx) => surface.dispatchEvent(new PointerEvent(type, {
    pointerId: 1, button: 0, buttons: 1, bubbles: true, clientX: box.left + 5 + dx, clientY: box.top + 5 }));
  surface.setPointerCapture = () => undefined;
  const steps = {
    pan: (round) => point('pointermove', 10 + (round % 40) * 4),
    edit: () => document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'd', ctrlKey: true, bubbles: true, cancelable: true })),
    rest: () => undefined,
  };
  (async () => {
    if (kind === 'pan') point('pointerdown', 0);
    for (let round = 0; round < rounds; round++) {
      steps[kind](round);
      await drawn();
    }
    if (kind === 'pan') point('pointerup', 0);
    done();
  })();
`;

const ROUNDS = 12;
const TURNS = 7;

/** Edits and pans on the real page, with few and with many nodes. */
export async function benchEditing(report: Report): Promise<void> {
  const server = await ServerProcess.start(await freshDatabase());
  const browser = await Browser.open(ALL_PIXELS);
  const bench = new Bench(browser, server.address, PATIENCE);
  /** Milliseconds of the page's main thread for one step: scripts, styles and layout; not what the graphics driver takes. */
  const measure = async (kind: 'pan' | 'edit'): Promise<number[]> => {
    const times: number[] = [];
    for (let turn = 0; turn < TURNS; turn++) {
      const before = await browser.mainThreadSeconds();
      await browser.driver.executeAsyncScript(REPEAT, kind, ROUNDS);
      const between = await browser.mainThreadSeconds();
      await browser.driver.executeAsyncScript(REPEAT, 'rest', ROUNDS);
      const resting = (await browser.mainThreadSeconds()) - between;
      times.push((Math.max(0, between - before - resting) * 1000) / ROUNDS);
    }
    return times.slice(1);
  };
  const open = async (id: string, change: Partial<Material>): Promise<void> => {
    const document = { ...newMaterial('Bench', { set: 'set-plain-sphere', rig: 'rig-north-window' }), ...change };
    await server.request('POST', '/documents', { id, document });
    await bench.openMaterial(id);
  };
  try {
    await browser.driver.manage().setTimeouts({ script: 240_000 });
    for (const size of SIZES) {
      await open(`wide${size}`, wideMaterial(size));
      // The first node is chosen: each edit duplicates what is chosen, and chooses the copy.
      const at = await firstNode(bench, size);
      await bench.drag(at, at);
      const figures = spread(await measure('edit'));
      await bench.saved();
      const { body } = await server.request('GET', `/documents/wide${size}`);
      if (Number(body['step']) < 10) throw new Error(`no edits happened at ${size} nodes`);
      report.bound(`an edit at ${size} nodes, our share of the main thread, ms`, figures, 30);
    }
    const wide = spread(await measure('pan'));
    await open('empty', { surface: { ...newMaterial('x').surface, nodes: {}, ribbons: {} } });
    const empty = spread(await measure('pan'));
    report.figure('a step of panning an empty graph, ms', empty);
    report.bound(
      'a step of panning 2,000 nodes beyond that of an empty graph, ms',
      {
        median: wide.median - empty.median,
        low: wide.low - empty.median,
        high: wide.high - empty.median,
      },
      8,
    );
  } finally {
    await browser.close();
    await server.stop();
  }
}

/** Where the first node of a wide graph lies on the screen, when all of it is shown. */
async function firstNode(bench: Bench, size: number): Promise<{ x: number; y: number }> {
  const { x, y, width, height } = await (await bench.see('.graph-surface')).getRect();
  const [columns, rows] = [Math.min(size, 40), Math.ceil(size / 40)];
  const [wide, tall] = [(columns - 1) * 220 + 172, (rows - 1) * 160 + 110];
  const zoom = Math.max(Math.min(1, (width - 80) / wide, (height - 80) / tall), 0.03);
  const left = x + (width - wide * zoom) / 2;
  const top = y + (height - tall * zoom) / 2;
  return { x: Math.round(left + 40 * zoom), y: Math.round(top + 14 * zoom) };
}
