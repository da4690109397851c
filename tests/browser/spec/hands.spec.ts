import { isDeepStrictEqual } from 'node:util';
import type { Material } from '@brelvin/contract';
import { By, Key, type WebElement } from 'selenium-webdriver';
import { compileFor, DEMO_DOCUMENTS, EMPTY_GRAPH, newMaterial, GLSL_TARGET } from '@brelvin/core';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

/** Fast hands on the graph, each by its gesture. */
describe('Hands', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open));

  afterEach(async () => {
    expect(await browser.consoleErrors()).toEqual([]);
  });

  async function open(change: Partial<Material> = {}): Promise<string> {
    const id = await server.keep({ ...newMaterial('Hands', { set: 'set-plain-sphere', rig: PLAIN_RIG }), ...change });
    await bench.openMaterial(id);
    return id;
  }

  const stored = async (id: string): Promise<Material> => {
    await bench.saved();
    return server.stored(id);
  };

  it('drop a node on a ribbon to put it into it, and take both back in one step', async () => {
    await open();
    await bench.addNode('multiply', await bench.ground(60, 380));
    const card = await bench.middle(await bench.see('[data-kind="multiply"] .card-name'));
    const [from, to] = [await bench.middle(await bench.outlet('colour')), await bench.middle(await bench.inlet('lambert', 'base'))];
    const middle = { x: Math.round((from.x + to.x) / 2) - 10, y: Math.round((from.y + to.y) / 2) - 20 };
    await bench.drag(card, { x: card.x + 20, y: card.y - 40 }, middle);
    await bench.expectConnected(await bench.inlet('multiply', 'a'));
    await bench.expectConnected(await bench.inlet('lambert', 'base'));
    await bench.undo();
    await bench.expectConnected(await bench.inlet('multiply', 'a'), false);
  });

  it('delete with healing, and without', async () => {
    const id = await open();
    await bench.addNode('bands', await bench.ground(420, 330));
    await bench.connect(await bench.outlet('lambert'), await bench.inlet('bands', 'base'));
    await bench.connect(await bench.outlet('bands'), await bench.dockInlet());
    await bench.choose('bands');
    await bench.keys(Key.DELETE);
    await bench.expectCards(2);
    expect((await stored(id)).surface.ribbons['dock.colour']?.from).toBe('lambert');
    await bench.undo();
    await bench.expectCards(3);
    await bench.choose('bands');
    await bench.dragHolding(Key.SHIFT);
    await bench.chord(Key.SHIFT, Key.DELETE);
    await bench.expectCards(2);
    expect((await stored(id)).surface.ribbons['dock.colour']).toBeUndefined();
  });

  it('choose by a frame, duplicate, copy, cut and paste, also into another material', async () => {
    await open();
    const corner = await bench.ground(4, 60);
    await bench.dragHolding(Key.SHIFT, corner, await bench.ground(300, 300), await bench.ground(730, 500));
    expect(await bench.settled(() => bench.selected(), 2)).toBe(2);
    await bench.chord(Key.CONTROL, 'd');
    await bench.expectCards(4);
    await bench.chord(Key.CONTROL, 'c');
    const other = await open();
    const at = await bench.ground(300, 420);
    await bench.drag(at, at);
    await bench.chord(Key.CONTROL, 'v');
    await bench.expectCards(4);
    expect(Object.keys((await stored(other)).surface.ribbons).length).toBe(3);
    await bench.chord(Key.CONTROL, 'x');
    await bench.expectCards(2);
    await bench.chord(Key.CONTROL, 'v');
    await bench.expectCards(4);
  });

  it('say so when what is pasted is no graph, and change nothing', async () => {
    await open();
    await bench.driver.executeScript(
      `const data = new DataTransfer(); data.setData('text/plain', 'The tern flies low');
       document.querySelector('.graph-surface').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`,
    );
    await bench.waitForText('.graph-refusal', /text that is not nodes/);
    await bench.expectCards(2);
  });

  it('swap a node for another, keeping the ribbons that fit', async () => {
    const id = await open();
    await bench.choose('lambert');
    await bench.chord(Key.CONTROL, 'e');
    await bench.see('.finder input');
    await bench.keys('blinn', Key.ENTER);
    await bench.see('[data-kind="blinnPhong"]');
    await bench.expectConnected(await bench.inlet('blinnPhong', 'base'));
    expect((await stored(id)).surface.ribbons['dock.colour']?.from).toBe('lambert');
    await bench.undo();
    await bench.see('[data-kind="lambert"]');
  });

  it('bend a ribbon by dragging it, and straighten it again', async () => {
    const id = await open();
    const [from, to] = [await bench.middle(await bench.outlet('colour')), await bench.middle(await bench.inlet('lambert', 'base'))];
    const middle = { x: Math.round((from.x + to.x) / 2), y: Math.round((from.y + to.y) / 2) };
    await bench.drag(middle, { x: middle.x, y: middle.y + 40 }, { x: middle.x, y: middle.y + 90 });
    expect((await stored(id)).surface.ribbons['lambert.base']?.bends?.length).toBe(1);
    await bench.driver
      .actions()
      .move({ x: middle.x, y: middle.y + 90 })
      .doubleClick()
      .perform();
    expect((await stored(id)).surface.ribbons['lambert.base']?.bends).toBeUndefined();
  });

  it('surround nodes by an area, move it with what lies in it, and write notes', async () => {
    const id = await open();
    await bench.chord(Key.CONTROL, 'a');
    await bench.command('Surround by an area');
    const title = await bench.see('.area .remark-title');
    const before = (await stored(id)).surface.nodes['colour'];
    const at = await bench.middle(title);
    await bench.drag({ x: at.x, y: at.y }, { x: at.x + 10, y: at.y + 30 }, { x: at.x + 20, y: at.y + 60 });
    const moved = await stored(id);
    expect(moved.surface.nodes['colour']?.y).toBeGreaterThan((before?.y ?? 0) + 30);
    await bench.doubleClick(await bench.see('.area .remark-title'));
    await bench.retype(await bench.see('.remark-title input'), 'Skin of the puppet');
    await bench.waitForText('.remark-title', /Skin of the puppet/);
    await bench.keys(Key.ESCAPE);
    await bench.command('Add a note');
    await bench.see('.note textarea');
    await bench.keys('Warm, towards plum');
    await bench.keys(Key.ESCAPE);
    await bench.waitForText('.note-text', /Warm, towards plum/);
    expect(Object.values((await stored(id)).surface.areas)[0]?.title).toBe('Skin of the puppet');
  });

  it('tidy the graph in one step, and align what is chosen', async () => {
    const id = await open();
    for (const [kind, x, y] of [
      ['bands', 500, 340],
      ['rim', 60, 400],
      ['add', 280, 440],
    ] as const)
      await bench.addNode(kind, await bench.ground(x, y));
    await bench.connect(await bench.outlet('rim'), await bench.inlet('add', 'b'));
    const before = await stored(id);
    await bench.press('tidy', '.graph-bar');
    await bench.driver.wait(async () => JSON.stringify((await stored(id)).surface.nodes) !== JSON.stringify(before.surface.nodes), 10_000);
    const after = await stored(id);
    const at = (kind: string): number => Object.values(after.surface.nodes).find((node) => node.kind === kind)?.x ?? 0;
    expect(at('colour')).toBeLessThan(at('lambert'));
    expect(at('rim')).toBeLessThan(at('add'));
    await bench.undo();
    const isBefore = async (): Promise<boolean> => isDeepStrictEqual((await stored(id)).surface.nodes, before.surface.nodes);
    expect(await bench.settled(isBefore, true)).toBeTrue();
    await bench.choose('bands', 'rim');
    await bench.command('Align left edges');
    const aligned = Object.values((await stored(id)).surface.nodes);
    expect(new Set(aligned.filter((node) => node.kind === 'bands' || node.kind === 'rim').map((node) => node.x)).size).toBe(1);
  });

  it('make a group, name it, enter it, add an outlet to it, leave it, reuse it, unmake it', async () => {
    const id = await open();
    await bench.choose('lambert');
    await bench.chord(Key.CONTROL, 'g');
    await bench.see('[data-kind="group"]');
    await bench.expectConnected(await bench.dockInlet());
    await bench.keys(Key.F2);
    await bench.retype(await bench.see('.card-naming'), 'Plaster');
    await bench.waitForText('.card-name', /Plaster/);
    await bench.doubleClick(await bench.see('[data-kind="group"] .card-name'));
    await bench.waitForText('.trail', /surface.*Plaster/s);
    await bench.expectCards(1);
    await bench.connect(await bench.outlet('lambert'), await bench.see('.dock:not(.entry) .port[data-inlet="new-port"]'));
    expect((await bench.all('.dock:not(.entry) .port')).length).toBe(3);
    await bench.press('surface', '.trail');
    await bench.see('[data-kind="colour"]');
    await bench.addNode('plaster', await bench.ground(300, 430));
    expect((await bench.all('[data-kind="group"]')).length).toBe(2);
    expect(Object.keys((await stored(id)).groups).length).toBe(1);
    await bench.undo();
    await bench.choose('group');
    await bench.chord(Key.CONTROL, Key.SHIFT, 'g');
    await bench.see('[data-kind="lambert"]');
    expect((await stored(id)).groups).toEqual({});
    await bench.expectConnected(await bench.dockInlet());
  });

  const node = (kind: string, x: number, y: number): Material['surface']['nodes'][string] => ({ kind, rev: 1, x, y, values: {} });

  it('keep a number as the factor of what runs in, changed without another program', async () => {
    const nodes = { p: node('place', 20, 40), s: { ...node('physicalSurface', 320, 40), values: { metallic: 1 } } };
    const ribbons = { 's.roughness': { from: 'p', outlet: 'y' }, 'dock.colour': { from: 's', outlet: 'result' } };
    const id = await open({ surface: { ...EMPTY_GRAPH, nodes, ribbons } });
    const before = await bench.stagePixels();
    await bench.retype(await bench.number('physicalSurface', 'Roughness, factor'), '0.1');
    await bench.expectChange(before, 0.01);
    const programs = await bench.compiledPrograms();
    const shining = await bench.stagePixels();
    await bench.retype(await bench.number('physicalSurface', 'Roughness, factor'), '0.9');
    await bench.expectChange(shining, 0.01);
    expect(await bench.compiledPrograms()).toBe(programs);
    expect((await stored(id)).surface.nodes['s']?.factors).toEqual({ roughness: 0.9 });
    await bench.undo();
    await bench.undo();
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.005);
  });

  it('make a gradient a parameter by its inlet’s menu; its stops are then changed beside the others', async () => {
    const nodes = { p: node('place', 20, 40), g: node('gradient', 320, 40) };
    const ribbons = { 'g.at': { from: 'p', outlet: 'y' }, 'dock.colour': { from: 'g', outlet: 'result' } };
    const id = await open({ surface: { ...EMPTY_GRAPH, nodes, ribbons } });
    await bench.contextClick(await bench.inlet('gradient', 'stops'));
    await bench.press('Make a parameter', '.menu');
    await bench.expectConnected(await bench.inlet('gradient', 'stops'));
    const before = await bench.stagePixels();
    const programs = await bench.compiledPrograms();
    await bench.click('.parameter-row .gradient-bar');
    await bench.click('.gradient-stop:last-of-type');
    await bench.retype(await bench.see('#colour-hex'), '#1040ff');
    await bench.keys(Key.ESCAPE);
    await bench.expectChange(before, 0.05);
    expect(await bench.compiledPrograms()).toBe(programs);
    const [parameter] = Object.values((await stored(id)).parameters);
    expect([parameter?.type, parameter?.name]).toEqual(['stops', 'Stops']);
    const [, , , , red, , blue] = parameter?.value as readonly number[];
    expect(blue).toBeGreaterThan((red ?? 1) * 10);
  });

  it('show unused nodes, and remove them in one gesture', async () => {
    await open();
    await bench.addNode('rim', await bench.ground(60, 380));
    await bench.addNode('sine', await bench.ground(300, 400));
    expect(await bench.settled(async () => (await bench.all('.card-unused')).length, 2)).toBe(2);
    await bench.command('Remove unused nodes');
    await bench.expectCards(2);
  });

  it('make a parameter of an inlet by its menu, moved by a sine, without another program', async () => {
    await open();
    await bench.addNode('bands', await bench.ground(420, 330));
    await bench.connect(await bench.outlet('bands'), await bench.dockInlet());
    await bench.sharp();
    await bench.contextClick(await bench.inlet('bands', 'floor'));
    await bench.press('Make a parameter', '.menu');
    await bench.expectConnected(await bench.inlet('bands', 'floor'));
    await bench.waitForText('.panel-parameters', /save variant/);
    await bench.sharp();
    const programs = await bench.compiledPrograms();
    await bench.click('.parameter-row .text-button');
    const select = await bench.see('.parameter-more select[id^="live-"]');
    await select.findElement(By.css('option[value="sine"]')).click();
    await bench.waitForText('.parameter-row', /sine/);
    await bench.expectMotion();
    expect(await bench.compiledPrograms()).toBe(programs);
  });

  it('keep a thousand nodes out of the page that are not seen, and find the way by the overview', async () => {
    const nodes = Object.fromEntries(
      Array.from({ length: 1000 }, (_, index) => [
        `n${index}`,
        { kind: 'sine', rev: 1, x: (index % 40) * 260, y: Math.floor(index / 40) * 160, values: {} },
      ]),
    );
    await open({ surface: { ...newMaterial('x').surface, nodes: { ...newMaterial('x').surface.nodes, ...nodes } } });
    expect(await bench.cardCount()).toBe(0);
    const map = await bench.middle(await bench.see('.overview canvas'));
    await bench.drag(map, map);
    const surface = await bench.ground(300, 200);
    await bench.move(surface);
    await bench.driver.executeScript(
      `document.querySelector('.graph-surface').dispatchEvent(new WheelEvent('wheel', { deltaY: -1800, clientX: arguments[0], clientY: arguments[1], bubbles: true, cancelable: true }));`,
      surface.x,
      surface.y,
    );
    await bench.see('[data-card]');
    expect(await bench.cardCount()).toBeLessThan(120);
  });

  it('make Puppet cheek from an empty graph in at most 20 gestures', async () => {
    const id = await open({ surface: EMPTY_GRAPH });
    let gestures = 0;
    const gesture = async (doing: Promise<unknown>): Promise<void> => {
      gestures++;
      await doing;
    };
    const typed = async (...text: string[]): Promise<void> => gesture(bench.keys(...text));
    const fromPort = async (port: Promise<WebElement>, to: { x: number; y: number }, word: string): Promise<void> => {
      const start = await bench.middle(await port);
      await gesture(bench.drag(start, { x: Math.round((start.x + to.x) / 2), y: to.y - 10 }, to));
      await bench.see('.finder input');
      await typed(word, Key.ENTER);
    };
    /** Two numbers below each other: a press, the first number, on by Tab, the second number. */
    const numbers = async (kind: string, label: string, first: string, second: string): Promise<void> => {
      await gesture((await bench.number(kind, label)).click());
      await typed(first, Key.TAB);
      await typed(second, Key.ENTER);
    };
    const colour = async (kind: string, label: string, hex: string): Promise<void> => {
      await gesture(bench.click(`[data-kind="${kind}"] .swatch[aria-label^="${label}, #"]`));
      await gesture(bench.retype(await bench.see('.colour-picker #colour-hex'), hex));
    };
    // A fresh page is typed on at once: a colour is a node.
    await bench.keys('#');
    await bench.see('.finder input');
    await typed('f0b497', Key.ENTER);
    await fromPort(bench.outlet('colour'), await bench.ground(330, 60), 'bands');
    await fromPort(bench.outlet('bands'), await bench.ground(560, 160), 'add');
    await fromPort(bench.inlet('add', 'b'), await bench.ground(500, 330), 'fresnel rim');
    await gesture(bench.connect(await bench.outlet('add'), await bench.dockInlet()));
    await numbers('bands', 'Softness', '0.04', '0.42');
    await colour('bands', 'Tint', '#dca1bb');
    await colour('rim', 'Colour', '#ffdcbc');
    await numbers('rim', 'Strength', '0.55', '4');
    await gesture(bench.press('outline', '.panel-about'));
    await gesture(bench.press('silhouette', '.outline-panel'));
    expect(gestures).toBeLessThanOrEqual(20);
    const made = await stored(id);
    const demo = DEMO_DOCUMENTS.find((each) => each.id === 'material-puppet-cheek')!.document as Material;
    const kinds = (material: Material): string[] =>
      Object.values(material.surface.nodes)
        .map((node) => node.kind)
        .sort();
    expect(kinds(made)).toEqual(kinds(demo));
    const values = (material: Material, kind: string) => Object.values(material.surface.nodes).find((node) => node.kind === kind)?.values;
    expect(values(made, 'bands')?.['floor']).toBe(0.42);
    expect(values(made, 'bands')?.['softness']).toBe(0.04);
    expect(values(made, 'rim')?.['strength']).toBe(0.55);
    expect(values(made, 'rim')?.['power']).toBe(4);
    expect(made.outline).toEqual(demo.outline);
    // The same structure makes the same program.
    expect(compileFor(GLSL_TARGET, made).compiled?.key).toBe(
      compileFor(GLSL_TARGET, { ...demo, surface: inOrderOf(demo, made) }).compiled?.key,
    );
  });
});

/** The demo's graph with the nodes in the order in which they were made here, so that names in the program agree. */
function inOrderOf(demo: Material, made: Material): Material['surface'] {
  const order = Object.values(made.surface.nodes).map((node) => node.kind);
  const nodes = Object.entries(demo.surface.nodes).sort(([, a], [, b]) => order.indexOf(a.kind) - order.indexOf(b.kind));
  return { ...demo.surface, nodes: Object.fromEntries(nodes) };
}
