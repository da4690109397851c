import type { StageSet } from '@brelvin/contract';
import { newMaterial, newSet } from '@brelvin/core';
import { Key } from 'selenium-webdriver';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

/** Scenes without a polygon, as they are built by hand. */
describe('Fields', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  withBench((open) => ({ server, browser, bench } = open));

  const LINES = [
    'const int FLOOR = 1; // region Boards',
    'const int POST = 2; // region Post',
    'float field(vec3 p, out int region) {',
    'float boards = boxField(p + vec3(0.0, 1.0, 0.0), vec3(3.0, 0.2, 3.0), 0.0);',
    'float post = cylinderField(p, 0.4, 1.8, 0.1);',
    'region = post < boards ? POST : FLOOR;',
    'return unionChamfered(post, boards, 0.2); }',
  ];

  it('are typed, say what is wrong with them, and wear materials by region', async () => {
    const set = await server.keep(newSet('Store'));
    await bench.openMaterial(await server.keep(newMaterial('Boards', { set, rig: PLAIN_RIG })));
    const sphere = await bench.stagePixels();
    await bench.press('mesh:');
    await bench.press('Field', '.mesh-panel');
    await bench.waitForText('.mesh-bar', /mesh:\s+field/);
    await bench.expectChange(sphere, 0.02);
    const float = await bench.stagePixels();
    const text = await bench.see('.formula');
    await text.click();
    await text.sendKeys(Key.chord(Key.CONTROL, 'a'), LINES.join(Key.ENTER).replace('cylinderField', 'cilinderField'));
    // The picture stays as it was while the text is wrong.
    await bench.waitForText('.formula-problem', /Line 5, column 14: .*cilinderField/);
    expect((await bench.stagePixels()).changedShare(float)).toBeLessThan(0.01);
    await text.sendKeys(Key.chord(Key.CONTROL, 'a'), LINES.join(Key.ENTER));
    await bench.expectChange(float, 0.05);
    expect(await bench.all('.formula-problem')).toEqual([]);
    await bench.keys(Key.ESCAPE);
    await bench.press('parts', '.graph-bar');
    await bench.waitForText('.parts-list', /Boards\s+the material on the Bench\s+Post\s+the material on the Bench/);
    // A region is picked in the picture, and dressed.
    const middle = await bench.middle(await bench.see('.stage-canvas'));
    const plain = await bench.stagePixels();
    await bench.drag(middle, middle);
    await bench.waitForText('brelvin-part-dressing h2', /Post/);
    await bench.pick('Burner brass', 'material:', 'brelvin-part-dressing');
    await bench.waitForText('.parts-part.chosen', /Burner brass/);
    await bench.expectChange(plain, 0.02);
    await bench.saved();
    const stored = await server.stored<StageSet>(set);
    expect(Object.values(stored.partRules).map(({ pattern, material }) => [pattern, material])).toEqual([
      ['Post', 'material-burner-brass'],
    ]);
    expect(Object.values(stored.meshes)[0]?.formula).toContain('unionChamfered');
    // It all stands there again after the page was left, and undo takes it back step by step.
    const dressed = await bench.stagePixels();
    await bench.driver.navigate().refresh();
    await bench.ready();
    expect((await bench.stagePixels()).changedShare(dressed)).toBeLessThan(0.02);
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('are documents of the Library, written in the code tab and shown by several meshes', async () => {
    await bench.openLibrary();
    await bench.press('Fields', '.library-head');
    await bench.press('begin in code');
    // It opens beside a material on which it is seen.
    await bench.ready();
    await bench.waitForText('.code-bar', /New field/);
    const float = await bench.stagePixels();
    // The editor closes the brace itself.
    const typed = LINES.join(Key.ENTER).replace(/ }$/, '');
    await bench.click('.cm-content');
    await bench.chord(Key.CONTROL, 'a');
    await bench.keys(typed.replace('cylinderField', 'cilinderField'));
    await bench.waitForText('.code-problems', /cilinderField/);
    expect((await bench.stagePixels()).changedShare(float)).toBeLessThan(0.01);
    await bench.chord(Key.CONTROL, 'a');
    await bench.keys(typed);
    await bench.expectChange(float, 0.05);
    expect(await bench.all('.code-problems')).toEqual([]);
    await bench.saved();
    await bench.press('parts', '.graph-bar');
    await bench.waitForText('.parts-list', /New field\s+Boards.*Post/s);
    await bench.press('mesh:');
    await bench.waitForText('.mesh-panel .field-choice', /Field\s+New field\s+edit\s+copy into the set/);
    await bench.press('edit', '.mesh-panel');
    await bench.see('.cm-content');
    expect(await bench.all('.mesh-panel')).toEqual([]);
    // A mesh in its place has its regions as parts; undo brings the field back.
    await bench.press('mesh:');
    await bench.retype(
      await bench.see('.field-choice [aria-label="Cells"]').then(async (cells) => (await cells.click(), bench.see('.field-choice input'))),
      '24',
    );
    await bench.press('turn into a mesh', '.mesh-panel');
    await bench.waitForText('.toast', /“New field” is a mesh of [\d,]+ triangles now.*Cells of 0\.\d+ m/s);
    await bench.keys(Key.ESCAPE);
    await bench.press('parts', '.graph-bar');
    await bench.waitForText('.parts-list', /New field\s+Boards.*Post/s);
    await bench.waitForText('.mesh-bar', /mesh:\s+New field/);
    await bench.undo();
    await bench.waitForText('.mesh-bar', /mesh:\s+field/);
    // The Library shows it, and opens the same material again.
    await bench.openLibrary();
    await bench.press('Fields', '.library-head');
    await bench.press('Fields', '.library-head');
    await bench.click('[aria-label="Open New field"]');
    await bench.ready();
    await bench.waitForText('.code-bar', /New field/);
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('are drawn as graphs whose nodes give distances, and read as code', async () => {
    await bench.openLibrary();
    await bench.press('Fields', '.library-head');
    await bench.press('New field');
    await bench.ready();
    await bench.waitForText('.trail', /material\s+\/\s+New field/);
    await bench.expectCards(6);
    expect(await bench.text('.dock')).toMatch(/^\s*Field\s*$/);
    const float = await bench.stagePixels();
    // A box that looks out of the float, by five gestures.
    await bench.addNode('box field', await bench.ground(60, 420));
    await bench.addNode('union', await bench.ground(420, 420));
    await bench.connect(await bench.outlet('fieldUnionRound'), await bench.inlet('fieldUnion', 'a'));
    await bench.connect(await bench.outlet('boxField'), await bench.inlet('fieldUnion', 'b'));
    await bench.connect(await bench.outlet('fieldUnion'), await bench.dockInlet('field'));
    await bench.expectChange(float, 0.002);
    await bench.saved();
    // What it costs to find it, pixel by pixel, by a scale of one's own.
    const plain = await bench.stagePixels();
    await bench.press('view', 'brelvin-view-menu');
    await bench.click('[data-view="steps"]');
    await bench.waitForText('.view-legend', /Blue: few; yellow: the end of the range or more/);
    await bench.expectChange(plain, 0.1);
    const cheap = await bench.stagePixels();
    await bench.click('.view-panel [aria-label="Steps up to"]');
    await bench.retype(await bench.see('.view-panel input[aria-label="Steps up to"]'), '8');
    await bench.expectChange(cheap, 0.05);
    await bench.click('[data-view="parts"]');
    await bench.waitForText('.view-legend', /each region of a field, has a colour of its own/);
    await bench.click('[data-view="none"]');
    await bench.keys(Key.ESCAPE);
    expect(await bench.settled(async () => (await bench.stagePixels()).changedShare(plain) < 0.005, true)).toBe(true);
    // Regions are those of the nodes that bear their names.
    await bench.press('parts', '.graph-bar');
    await bench.waitForText('.parts-list', /Float.*Collar/s);
    await bench.press('graph', '.graph-bar');
    // What a field cannot have is told at its node, and the picture stays.
    const posted = await bench.stagePixels();
    await bench.addNode('normal', await bench.ground(60, 470));
    await bench.connect(await bench.outlet('normal'), await bench.inlet('boxField', 'position'));
    await bench.waitForText('.problem', /A field is asked everywhere in space: what “Normal” reads/);
    expect((await bench.stagePixels()).changedShare(posted)).toBeLessThan(0.001);
    await bench.undo();
    expect(await bench.settled(async () => (await bench.all('.problem')).length, 0)).toBe(0);
    await bench.press('code', '.graph-bar');
    await bench.press('field as code', '.code-bar');
    await bench.waitForText('.cm-content', /Field field\(vec3 p\) \{.*ellipsoidField.*boxField/s);
    await bench.press('turn into code');
    await bench.waitForText('.toast', /“New field.* in code” is in the Library/);
    // Back to the material's own graph.
    await bench.press('graph', '.graph-bar');
    await bench.press('material', '.trail');
    await bench.card('lambert');
    await bench.expectCards(2);
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
