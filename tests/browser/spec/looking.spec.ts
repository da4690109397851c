import type { Material } from '@brelvin/contract';
import { Key } from 'selenium-webdriver';
import { newMaterial } from '@brelvin/core';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import { PICTURE_DEVICES, DEVICE_WORDS, itDrewWith } from '../support/on-both-devices';
import { withBench } from '../support/with-bench';

const PEEK = Key.F6;
const PROBE = Key.F7;

/** Looking at what nodes give: on the mesh, at points, in small; and writing a node of one's own. */
for (const device of PICTURE_DEVICES)
  describe(`Looking at values, drawn with ${DEVICE_WORDS[device]}:`, () => {
    let server: ServerProcess;
    let bench: Bench;

    withBench((open) => ({ server, bench } = open), { device });

    /** A material on the plain sphere: place in mesh into a smooth step into the dock. */
    async function open(change: Partial<Material> = {}): Promise<string> {
      const plain = newMaterial('Looking', { set: 'set-plain-sphere', rig: PLAIN_RIG });
      const node = (kind: string, x: number, values = {}): Material['surface']['nodes'][string] => ({ kind, rev: 1, x, y: 60, values });
      const surface = {
        ...plain.surface,
        nodes: { place: node('place', 20), step: node('smoothstep', 240, { low: 0.2, high: 0.8 }), tone: node('colour', 240) },
        ribbons: { 'step.value': { from: 'place', outlet: 'y' }, 'dock.colour': { from: 'step', outlet: 'result' } },
      };
      const tone = { ...surface.nodes.tone, y: 260 };
      const id = await server.keep({ ...plain, surface: { ...surface, nodes: { ...surface.nodes, tone } }, ...change });
      await bench.openMaterial(id);
      return id;
    }

    const stored = (id: string): Promise<Material> => server.stored(id);

    async function pressStage(across: number, down: number): Promise<void> {
      const { x, y, width, height } = await (await bench.see('.stage-canvas')).getRect();
      const spot = { x: Math.round(x + width * across), y: Math.round(y + height * down) };
      await bench.drag(spot, spot);
    }

    it('peeks at a node by a key: a scale with the range that is seen, and back', async () => {
      await open();
      const before = await bench.stagePixels();
      await bench.choose('smoothstep');
      await bench.keys(PEEK);
      await bench.waitForText('.peek-title', /Smoothstep/);
      await bench.expectChange(before, 0.05);
      await bench.waitForText('.peek-numbers', /^0(\.000)?\s+0\.2\d*\s+0\.5\d*\s+0\.7\d*\s+1(\.\d+)?$/);
      const scaled = await bench.stagePixels();
      await bench.press('colour', '.peek-bar');
      await bench.expectChange(scaled, 0.05);
      await bench.keys(PEEK);
      expect(await bench.settled(async () => (await bench.all('.peek-bar')).length, 0)).toBe(0);
      expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.01);
    });

    it('peeks at one of several outlets by its button, also at what reaches nothing, and compiles once', async () => {
      await open();
      await bench.choose('place');
      const programs = await bench.compiledPrograms();
      await bench.press('Peek at Bottom to top', '[data-kind="place"]');
      await bench.waitForText('.peek-title', /Bottom to top/);
      await bench.sharp();
      expect(await bench.settled(() => bench.compiledPrograms(), programs + 1)).toBe(programs + 1);
      await bench.choose('colour');
      const before = await bench.stagePixels();
      await bench.press('Peek at Colour', '[data-kind="colour"]');
      await bench.waitForText('.peek-title', /^Colour$/);
      await bench.expectChange(before, 0.05);
    });

    it('reads values at points: on ribbons and in a list, two beside each other, again when a number changes', async () => {
      await open();
      await bench.keys(PROBE);
      await pressStage(0.5, 0.5);
      await bench.waitForText('[data-kind="smoothstep"] .card-value', /0\.8\d\d/);
      await bench.waitForText('.probe-table', /Smoothstep/);
      await pressStage(0.5, 0.68);
      expect(await bench.settled(async () => (await bench.all('.probe-mark')).length, 2)).toBe(2);
      const values = async (): Promise<number[]> => {
        const texts = await Promise.all(
          (await bench.all('[data-kind="smoothstep"] [data-pin="1"], [data-kind="smoothstep"] [data-pin="2"]')).map((each) =>
            each.getText(),
          ),
        );
        return texts.map((text) => Number(text.split('\n').at(-1)));
      };
      await bench.driver.wait(async () => (await values()).length === 2, 60_000, 'two values');
      const [middle = 0, lower = 0] = await values();
      expect(lower).toBeLessThan(middle - 0.2);
      await bench.retype(await numberField('smoothstep', 'High'), '2');
      await bench.driver.wait(
        async () => (await values()).every((each, index) => each < [middle, lower][index]! - 0.05),
        60_000,
        'values follow the number',
      );
      await bench.press('Take pin 1 away', '.probe-table');
      expect(await bench.settled(async () => (await bench.all('.probe-mark')).length, 1)).toBe(1);
      await bench.keys(PROBE);
      expect(await bench.settled(async () => (await bench.all('.card-value')).length, 0)).toBe(0);
    });

    it('keeps all of three points that are pressed one right after the other', async () => {
      await open();
      await bench.keys(PROBE);
      for (const down of [0.35, 0.5, 0.65]) await pressStage(0.5, down);
      expect(await bench.settled(async () => (await bench.all('.probe-mark')).length, 3)).toBe(3);
    });

    /** A number's field, opened for typing. */
    async function numberField(kind: string, label: string): Promise<Awaited<ReturnType<Bench['see']>>> {
      await (await bench.number(kind, label)).click();
      return bench.see(`[data-kind="${kind}"] input.number-input`);
    }

    it('shows previews on all nodes by one command, keeps them, and takes them away by undo', async () => {
      const id = await open();
      await bench.command('Previews on all nodes');
      const drawn = async (): Promise<number> => (await bench.all('.card-preview canvas[data-drawn]')).length;
      expect(await bench.settled(drawn, 3)).toBe(3);
      const lit = await bench.driver.executeScript<number>(
        `const canvas = document.querySelector('[data-kind="colour"] .card-preview canvas');
       return canvas.getContext('2d').getImageData(48, 48, 1, 1).data[0];`,
      );
      expect(lit).toBeGreaterThan(200);
      await bench.saved();
      expect(Object.values((await stored(id)).surface.nodes).every((node) => node.preview)).toBeTrue();
      await bench.undo();
      expect(await bench.settled(drawn, 0)).toBe(0);
    });

    it('draws the course of a node on its card, which follows its numbers', async () => {
      await open();
      const course = async (): Promise<string> => (await (await bench.see('[data-kind="smoothstep"] .curve-line')).getAttribute('d')) ?? '';
      const before = await course();
      await bench.retype(await numberField('smoothstep', 'Low'), '0.6');
      await bench.driver.wait(async () => (await course()) !== before, 60_000, 'the course follows');
      await bench.undo();
      expect(await bench.settled(course, before)).toBe(before);
    });

    it('lets somebody write a node: ports as the function has them, a wrong name told and mended, the picture follows', async () => {
      const id = await open();
      await bench.addNode('code', await bench.ground(60, 380));
      await bench.choose('code');
      const text = await bench.see('.code-text');
      const write = async (code: string): Promise<void> => {
        await text.sendKeys(Key.chord(Key.CONTROL, 'a'), code);
      };
      await write('vec3 glow(vec3 tint, float edge) { return tint * smoothstp(0.0, edge, surfacePlace().y); }');
      await bench.waitForText('.code-problem', /Line 1, column \d+: .*smoothstp.*\n?.*Write “smoothstep”/);
      await bench.waitForText('.problem', /Line 1/);
      await bench.press('Write', '.code-problem');
      expect(await bench.settled(async () => (await bench.all('.problem')).length, 0)).toBe(0);
      await bench.waitForText('[data-kind="code"]', /Tint\s+.*Edge/s);
      const before = await bench.stagePixels();
      await bench.connect(await bench.outlet('code'), await bench.dockInlet());
      await bench.expectChange(before, 0.05);
      await bench.saved();
      expect(Object.values((await stored(id)).surface.nodes).find((node) => node.kind === 'code')?.code).toContain('smoothstep(');
    });

    it('chooses from a list on a card, and the picture follows without a new program', async () => {
      await open();
      await bench.addNode('blend', await bench.ground(60, 400));
      await bench.connect(await bench.outlet('blend'), await bench.dockInlet());
      await bench.sharp();
      const programs = await bench.compiledPrograms();
      const before = await bench.stagePixels();
      await bench.click('[data-kind="blend"] .card-choice option:last-child');
      await bench.expectChange(before, 0.05);
      expect(await bench.compiledPrograms()).toBe(programs);
    });

    it('uses opacity in three ways, each by one press', async () => {
      await open();
      await bench.connect(await bench.outlet('smoothstep'), await bench.dockInlet('opacity'));
      await bench.press('opacity', '.panel-about');
      const laid = await bench.stagePixels();
      await bench.press('mask', 'brelvin-opacity-panel');
      await bench.expectChange(laid, 0.02);
      const cut = await bench.stagePixels();
      await bench.press('additive', 'brelvin-opacity-panel');
      await bench.expectChange(cut, 0.02);
      await bench.undo();
      await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(cut) < 0.01, 60_000, 'masked again');
    });

    it('moves vertices from the graph: the outline of the sphere changes, and a broken shape keeps the last picture', async () => {
      await open();
      const round = await bench.stagePixels();
      await bench.addNode('bend', await bench.ground(60, 380));
      await bench.connect(await bench.outlet('bendOffset'), await bench.dockInlet('offset'));
      await bench.expectChange(round, 0.02);
      const bent = await bench.stagePixels();
      await bench.retype(await numberField('bendOffset', 'Bend'), '0');
      await bench.expectChange(bent, 0.02);
      expect((await bench.stagePixels()).changedShare(round)).toBeLessThan(0.01);
    });

    itDrewWith(device, () => bench);
  });
