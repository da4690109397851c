import { type Actions, By, Key, Origin, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import type { Browser } from './browser';
import { StagePixels } from './stage-pixels';

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Bounds a wait, and measures nothing: two halves of the specs share a machine, and its processors draw. */
const PATIENCE = 60_000;

/** No edit waits for longer before it is compiled: a text on a card does for 350 ms. */
const QUIET_MS = 360;

/** Answers whether the picture came to rest: arguments are milliseconds of quiet, and until it gives up. */
const RESTED = `
  const [quiet, patience, answer] = arguments;
  const begun = performance.now();
  let [since, last] = [begun, ''];
  const look = () => {
    const { pictures, sharp } = document.querySelector('.stage-canvas')?.dataset ?? {};
    const now = performance.now();
    if (pictures + sharp !== last) [since, last] = [now, pictures + sharp];
    if (sharp === 'true' && now - since >= quiet) answer(true);
    else if (now - begun > patience) answer(false);
    else setTimeout(look, 20);
  };
  look();`;

/** The Bench and the Library, used as a person does: by pointer and keyboard. */
export class Bench {
  readonly driver: WebDriver;

  constructor(
    private readonly browser: Browser,
    private readonly address: string,
    /** Milliseconds until a wait gives up. */
    private readonly patience = PATIENCE,
  ) {
    this.driver = browser.driver;
  }

  async openLibrary(): Promise<void> {
    await this.driver.get(this.address);
    await this.see('.library-head');
  }

  async openMaterial(id: string): Promise<void> {
    await this.driver.get(`${this.address}/bench/${id}`);
    await this.ready();
  }

  /** Waits until a painted, sharp picture stands. */
  async ready(): Promise<void> {
    await this.see('.stage-canvas[data-painted="true"]');
    await this.sharp();
  }

  async see(css: string): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(By.css(css)), this.patience, `nothing on the page fits ${css}`);
  }

  async all(css: string): Promise<WebElement[]> {
    return this.driver.findElements(By.css(css));
  }

  async text(css: string): Promise<string> {
    return (await this.see(css)).getText();
  }

  async waitForText(css: string, wanted: RegExp): Promise<string> {
    let last = '';
    const matches = async (): Promise<boolean> => {
      const found = await this.all(css);
      const texts = await Promise.all(found.map((each) => each.getText().catch(() => '')));
      last = texts.join(' | ');
      return wanted.test(last);
    };
    await this.driver.wait(matches, this.patience).catch(() => {
      throw new Error(`${css} never showed ${wanted}, but "${last}"`);
    });
    return last;
  }

  async click(css: string): Promise<void> {
    await (await this.see(css)).click();
  }

  /** A button by the words on it or its label. */
  async press(words: string, within = 'body'): Promise<void> {
    const lower = "translate(., 'ABCDEFGHIJKLMNOPQRSTUVWXYZ', 'abcdefghijklmnopqrstuvwxyz')";
    const wanted = words.toLowerCase();
    const path = `.//*[self::button or self::a][contains(${lower}, '${wanted}') or contains(translate(@aria-label, 'ABCDEFGHIJKLMNOPQRSTUVWXYZ', 'abcdefghijklmnopqrstuvwxyz'), '${wanted}')]`;
    const root = await this.see(within);
    const button = await this.driver.wait(
      async () => (await root.findElements(By.xpath(path)))[0],
      this.patience,
      `no button says ${words}`,
    );
    await button!.click();
  }

  /** Waits until everything that was done so far is saved; the page first says that there is something to save. */
  async saved(): Promise<void> {
    await this.driver.executeAsyncScript('requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(arguments[0])));');
    await this.waitForText('.save-state', /^saved$/);
  }

  async middle(element: WebElement): Promise<Spot> {
    const { x, y, width, height } = await element.getRect();
    return { x: Math.round(x + width / 2), y: Math.round(y + height / 2) };
  }

  /** Picks an entry of the picker whose button says these words, by typing its name. */
  async pick(name: string, button: string, within = 'body'): Promise<void> {
    await this.press(button, within);
    const field = await this.see('.picker-list input');
    await field.sendKeys(name);
    await this.waitForText('.picker-entry.chosen .picker-name', new RegExp(`^${name}$`));
    await field.sendKeys(Key.ENTER);
  }

  async move(at: Spot): Promise<void> {
    await this.driver.actions().move({ x: at.x, y: at.y, origin: Origin.VIEWPORT }).perform();
  }

  /** Presses at the first spot, goes over the others, lets go at the last. */
  async drag(...spots: readonly Spot[]): Promise<void> {
    const [first, ...rest] = spots;
    if (!first) return;
    const actions = this.driver
      .actions({ async: true })
      .move({ ...first, origin: Origin.VIEWPORT, duration: 0 })
      .press();
    for (const spot of rest) actions.move({ ...spot, origin: Origin.VIEWPORT, duration: 40 });
    await actions.release().perform();
  }

  /**
   * A gesture that begins between the first two spots; at each later one the hand stays until it has seen another
   * picture. It stays within one element: the driver forgets a pointer's capture between two calls.
   */
  async dragWatching(...spots: readonly Spot[]): Promise<void> {
    const move = (spot: Spot): Actions => this.driver.actions().move({ ...spot, origin: Origin.VIEWPORT, duration: 0 });
    for (const [index, spot] of spots.entries()) {
      const before = await this.pictures();
      await (index === 0 ? move(spot).press() : move(spot)).perform();
      if (index > 1) await this.morePictures(before + 1);
    }
    await this.driver.actions().release().perform();
  }

  async keys(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  async chord(...keys: string[]): Promise<void> {
    const actions = this.driver.actions();
    const held = keys.slice(0, -1);
    for (const key of held) actions.keyDown(key);
    actions.sendKeys(keys.at(-1) ?? '');
    for (const key of held.reverse()) actions.keyUp(key);
    await actions.perform();
  }

  /** Replaces what stands in a text field. */
  async retype(field: WebElement, text: string): Promise<void> {
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), text, Key.ENTER);
  }

  async undo(): Promise<void> {
    await this.chord(Key.CONTROL, 'z');
  }

  async redo(): Promise<void> {
    await this.chord(Key.CONTROL, Key.SHIFT, 'z');
  }

  // Graph

  /** An empty spot of the graph. */
  async ground(dx = 30, dy = 30): Promise<Spot> {
    const { x, y } = await (await this.see('.graph-surface')).getRect();
    return { x: Math.round(x + dx), y: Math.round(y + dy) };
  }

  /** Types on the graph, picks what the finder offers first. */
  async addNode(query: string, at: Spot): Promise<void> {
    const before = (await this.all('[data-card]')).length;
    await this.drag(at, at);
    await this.keys(query[0] ?? '');
    await this.see('.finder input:focus');
    await this.keys(query.slice(1));
    await this.keys(Key.ENTER);
    // Another window may add nodes at the same time.
    await this.driver.wait(
      async () => (await this.all('.finder')).length === 0 && (await this.all('[data-card]')).length > before,
      this.patience,
      `${query} did not come onto the graph`,
    );
  }

  card(kind: string): Promise<WebElement> {
    return this.see(`[data-card][data-kind="${kind}"]`);
  }

  async cardCount(): Promise<number> {
    return (await this.all('[data-card]')).length;
  }

  outlet(kind: string, name = 'result'): Promise<WebElement> {
    return this.see(`[data-kind="${kind}"] .port[data-outlet="${name}"]`);
  }

  inlet(kind: string, name: string): Promise<WebElement> {
    return this.see(`[data-kind="${kind}"] .port[data-inlet="${name}"]`);
  }

  dockInlet(name = 'colour'): Promise<WebElement> {
    return this.see(`.dock .port[data-inlet="${name}"]`);
  }

  async connect(from: WebElement, to: WebElement): Promise<void> {
    const [start, end] = [await this.middle(from), await this.middle(to)];
    await this.drag(start, { x: Math.round((start.x + end.x) / 2), y: Math.round((start.y + end.y) / 2) }, end);
  }

  private async isConnected(port: WebElement): Promise<boolean> {
    return ((await port.getAttribute('class')) ?? '').includes('port-connected');
  }

  // Expectations: the page renders in its own time, so each waits for what is wanted before it judges.

  /** Reads until the reading is the wanted one, or patience ends; answers the last reading. */
  async settled<T>(read: () => Promise<T>, wanted: T, patience = 20_000): Promise<T> {
    let last = await read();
    const end = Date.now() + patience;
    while (last !== wanted && Date.now() < end) {
      await this.driver.sleep(50);
      last = await read();
    }
    return last;
  }

  async expectConnected(port: WebElement, wanted = true): Promise<void> {
    expect(await this.settled(() => this.isConnected(port), wanted))
      .withContext('connected')
      .toBe(wanted);
  }

  async expectCards(count: number): Promise<void> {
    expect(await this.settled(() => this.cardCount(), count))
      .withContext('cards')
      .toBe(count);
  }

  async expectNumber(kind: string, label: string, value: number): Promise<void> {
    expect(await this.settled(() => this.numberValue(kind, label), value))
      .withContext(`${kind}: ${label}`)
      .toBe(value);
  }

  /** A number on a card, by its label. */
  number(kind: string, label: string): Promise<WebElement> {
    return this.see(`[data-kind="${kind}"] [role="spinbutton"][aria-label="${label}"]`);
  }

  async numberValue(kind: string, label: string): Promise<number> {
    return Number(await (await this.number(kind, label)).getAttribute('aria-valuenow'));
  }

  /** A gesture with a key held all along. */
  async dragHolding(key: string, ...spots: readonly Spot[]): Promise<void> {
    const [first, ...rest] = spots;
    if (!first) return;
    // One after the other: keys and pointer would else go their own ways.
    const actions = this.driver
      .actions()
      .keyDown(key)
      .move({ ...first, origin: Origin.VIEWPORT, duration: 0 })
      .press();
    for (const spot of rest) actions.move({ ...spot, origin: Origin.VIEWPORT, duration: 40 });
    await actions.release().keyUp(key).perform();
  }

  async doubleClick(element: WebElement): Promise<void> {
    await this.driver.actions().doubleClick(element).perform();
  }

  async contextClick(element: WebElement): Promise<void> {
    await this.driver.actions().contextClick(element).perform();
  }

  /** Runs a command by its name, as somebody who does not know its key. */
  async command(title: string): Promise<void> {
    await this.keys(Key.F4);
    await this.see('.command-list input');
    await this.keys(title);
    await this.keys(Key.ENTER);
    await this.driver.wait(async () => (await this.all('.command-list')).length === 0, this.patience, `the list stays open after ${title}`);
  }

  /** Chooses cards by their titles, one after the other. */
  async choose(...kinds: string[]): Promise<void> {
    for (const [index, kind] of kinds.entries()) {
      const at = await this.middle(await this.see(`[data-kind="${kind}"] .card-name`));
      if (index === 0) await this.drag(at, at);
      else await this.dragHolding(Key.SHIFT, at, at);
    }
  }

  async selected(): Promise<number> {
    return (await this.all('.card-selected')).length;
  }

  /** Drops a file on an element, as from the desktop. */
  async dropFile(element: WebElement, name: string, type: string, content: Buffer, at?: Spot): Promise<void> {
    await this.dropFiles(element, [{ name, type, content }], at);
  }

  async dropFiles(
    element: WebElement,
    files: readonly { readonly name: string; readonly type: string; readonly content: Buffer }[],
    at?: Spot,
  ): Promise<void> {
    const spot = at ?? (await this.middle(element));
    await this.driver.executeScript(
      `const [element, files, x, y] = arguments;
       const transfer = new DataTransfer();
       for (const { name, type, base64 } of files) {
         const bytes = Uint8Array.from(atob(base64), (each) => each.charCodeAt(0));
         transfer.items.add(new File([bytes], name, { type }));
       }
       for (const kind of ['dragover', 'drop'])
         element.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: transfer, clientX: x, clientY: y }));`,
      element,
      files.map(({ content, ...file }) => ({ ...file, base64: content.toString('base64') })),
      spot.x,
      spot.y,
    );
  }

  /** Chooses files in a field for files, as from the system's own dialog. */
  async chooseFiles(
    field: WebElement,
    files: readonly { readonly name: string; readonly type: string; readonly content: Buffer }[],
  ): Promise<void> {
    await this.driver.executeScript(
      `const [field, files] = arguments;
       const transfer = new DataTransfer();
       for (const { name, type, base64 } of files)
         transfer.items.add(new File([Uint8Array.from(atob(base64), (each) => each.charCodeAt(0))], name, { type }));
       field.files = transfer.files;
       field.dispatchEvent(new Event('change'));`,
      field,
      files.map(({ content, ...file }) => ({ ...file, base64: content.toString('base64') })),
    );
  }

  // Stage

  async stageAttribute(name: string): Promise<string> {
    return (await (await this.see('.stage-canvas')).getAttribute(`data-${name}`)) ?? '';
  }

  async compiledPrograms(): Promise<number> {
    return Number(await this.stageAttribute('programs'));
  }

  async pictures(): Promise<number> {
    return Number(await this.stageAttribute('pictures'));
  }

  /** Waits until so many pictures were drawn since the Stage was opened. */
  async morePictures(wanted: number): Promise<void> {
    await this.driver.wait(async () => (await this.pictures()) >= wanted, this.patience, `picture ${wanted} was never drawn`);
  }

  /** Waits until the picture has settled: the page says that it is whole, and no other one comes for a while. */
  async sharp(): Promise<void> {
    if (!(await this.driver.executeAsyncScript(RESTED, QUIET_MS, this.patience))) throw new Error('the Stage never came to rest');
  }

  async stagePixels(): Promise<StagePixels> {
    await this.sharp();
    return this.pixelsNow();
  }

  /** What the Stage shows at this moment, settled or not. */
  async pixelsNow(): Promise<StagePixels> {
    const canvas = await this.see('.stage-canvas');
    // A screenshot has what lies over the picture too: handles of lights and notices are no part of it.
    const over = (shown: boolean): Promise<unknown> =>
      this.driver.executeScript(
        `for (const each of document.querySelectorAll('.light-handles, .stage-notice')) each.style.visibility = arguments[0];`,
        shown ? '' : 'hidden',
      );
    await over(false);
    const screenshot = await canvas.takeScreenshot();
    await over(true);
    return new StagePixels(Buffer.from(screenshot, 'base64'), this.browser.pixelRatio);
  }

  /** Waits until the picture differs from an earlier one by a part of its pixels. */
  async expectChange(before: StagePixels, least: number): Promise<void> {
    await this.driver.wait(
      async () => (await this.stagePixels()).changedShare(before) > least,
      this.patience,
      `the picture never changed by ${least}`,
    );
  }

  /** Waits until the picture has changed by itself. */
  async expectMotion(): Promise<void> {
    const before = await this.pixelsNow();
    await this.driver.wait(
      async () => (await this.pixelsNow()).changedShare(before) > 0.002,
      this.patience,
      'nothing moves in the picture',
    );
  }

  /** Puts the light dial's dot at a place of its disc, −1…1, y up. */
  async dragLight(from: Spot, to: Spot): Promise<void> {
    const dial = await this.see('.light-dial');
    const { x, y, width, height } = await dial.getRect();
    const spot = (place: Spot): Spot => ({ x: Math.round(x + width / 2 + place.x * 52), y: Math.round(y + height / 2 - place.y * 52) });
    await this.drag(spot(from), spot({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }), spot(to));
  }

  async dialPlace(): Promise<Spot> {
    const dot = await this.see('.dial-dot');
    return { x: Number(await dot.getAttribute('cx')) / 52, y: -Number(await dot.getAttribute('cy')) / 52 };
  }
}
