import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Material, StageSet } from '@brelvin/contract';
import { Key } from 'selenium-webdriver';
import { newCodeMaterial, newFunction, newMesh, newSet } from '@brelvin/core';
import { PLAIN_RIG } from '../../support/seeded-database';
import { main as commandLine } from '../../../apps/cli/src/main';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import type { Browser } from '../support/browser';
import { withBench } from '../support/with-bench';

const GLOW = `/** Glow: how bright it is. @value 0.4 in 0..1 */
uniform float glow;

vec4 paint(Surface s) {
  return vec4(s.place * glow, 1.0);
}
`;

const WGSL_GLOW = `/** Shine: how bright it is. @value 0.4 in 0..1 */
@group(0) @binding(0) var<uniform> shine: f32;

fn paint(s: Surface) -> vec4f {
  return vec4f((s.place * shine).zyx, 1.0);
}
`;

/** Materials that are written: by typing, mending, dragging parameters, importing functions. */
describe('Code', () => {
  let server: ServerProcess;
  let bench: Bench;
  let browser: Browser;
  let made = 0;

  withBench((open) => ({ server, bench, browser } = open));

  async function open(text = GLOW, vertices?: string): Promise<string> {
    const code = vertices === undefined ? { text } : { text, vertices };
    const id = await server.keep(newCodeMaterial('Written', { set: 'set-plain-sphere', rig: PLAIN_RIG }, code));
    await bench.openMaterial(id);
    return id;
  }

  const stored = (id: string): Promise<Material> => server.stored(id);

  /** The text in the editor, as far as it is on the page. */
  const shown = async (): Promise<string> =>
    bench.driver.executeScript('return [...document.querySelectorAll(".cm-line")].map((line) => line.textContent).join("\\n")');

  /** Chooses a range of the text in the editor, as a hand with the pointer does. */
  async function select(from: number, to: number): Promise<void> {
    await bench.click('.cm-content');
    await bench.driver.executeScript(
      `const place = (offset) => {
        let left = offset;
        for (const line of document.querySelectorAll('.cm-line')) {
          if (left > line.textContent.length) { left -= line.textContent.length + 1; continue; }
          const walker = document.createTreeWalker(line, NodeFilter.SHOW_TEXT);
          for (let node = walker.nextNode(); node; node = walker.nextNode()) {
            if (left <= node.textContent.length) return [node, left];
            left -= node.textContent.length;
          }
          return [line, 0];
        }
      };
      getSelection().setBaseAndExtent(...place(arguments[0]), ...place(arguments[1]));`,
      from,
      to,
    );
    await bench.driver.sleep(120);
  }

  /** Puts the cursor behind the first place where these words stand. */
  async function cursorBehind(words: string): Promise<void> {
    await bench.see('.cm-content');
    const at = (await shown()).indexOf(words);
    expect(at).withContext(`${words} in the text`).toBeGreaterThanOrEqual(0);
    await select(at + words.length, at + words.length);
  }

  /** Chooses the first place where these words stand. */
  async function choose(words: string): Promise<void> {
    await bench.see('.cm-content');
    const at = (await shown()).indexOf(words);
    expect(at).withContext(`${words} in the text`).toBeGreaterThanOrEqual(0);
    await select(at, at + words.length);
  }

  async function type(text: string): Promise<void> {
    await bench.keys(text, Key.ESCAPE);
  }

  const noProblems = (): Promise<unknown> =>
    bench.driver.wait(async () => (await bench.all('.code-problems li')).length === 0, 60_000, 'nothing wrong');

  it('tells of a misspelt built-in at its place, and mends it by a key; then the picture follows', async () => {
    await open();
    const before = await bench.stagePixels();
    await cursorBehind('s.place * glow');
    await type(' * smoothstpe(0.4, 0.5, s.uv.y)');
    await bench.waitForText('.code-problems', /5:32\s+There is no function "smoothstpe"\.\s+Write “smoothstep”/);
    await bench.see('.cm-lintRange-error');
    await bench.waitForText('.stage-notice', /Last good picture\. Line 5, column 32/);
    expect((await bench.stagePixels()).changedShare(before))
      .withContext('the last good picture stays')
      .toBeLessThan(0.02);
    await bench.chord(Key.ALT, 'm');
    await noProblems();
    expect(await shown()).toContain('smoothstep(0.4');
    await bench.expectChange(before, 0.05);
  });

  it('makes parameters of comments; dragging one compiles nothing', async () => {
    const id = await open();
    const field = await bench.see('brelvin-number[label="Glow"], [aria-label="Glow"]');
    const programs = await bench.compiledPrograms();
    const before = await bench.stagePixels();
    const middle = await bench.middle(field);
    await bench.drag(middle, { x: middle.x + 20, y: middle.y }, { x: middle.x + 60, y: middle.y });
    await bench.expectChange(before, 0.1);
    await bench.saved();
    expect(await bench.compiledPrograms()).toBe(programs);
    const value = Object.values((await stored(id)).parameters)[0]?.value;
    expect(value).toBeGreaterThan(0.41);
    // The code says what it is called; another name there keeps what was dragged.
    await choose('glow;');
    await type('shine;');
    await bench.waitForText('.code-problems', /Nothing here is called "glow"/);
    await bench.saved();
    expect(Object.values((await stored(id)).parameters).map(({ uniform, value: kept }) => [uniform, kept])).toEqual([['shine', value]]);
  });

  it('reads WGSL that is pasted, drags its parameter, and completes in its own words', async () => {
    await open(WGSL_GLOW);
    await bench.click('.cm-content');
    await bench.chord(Key.CONTROL, 'a');
    await bench.chord(Key.CONTROL, 'c');
    const id = await open();
    const before = await bench.stagePixels();
    await bench.click('.cm-content');
    await bench.chord(Key.CONTROL, 'a');
    await bench.chord(Key.CONTROL, 'v');
    await bench.driver.wait(async () => (await shown()).includes('fn paint(s: Surface) -> vec4f'), 60_000, 'the text is pasted');
    await noProblems();
    await bench.expectChange(before, 0.05);
    const field = await bench.see('brelvin-number[label="Shine"], [aria-label="Shine"]');
    const programs = await bench.compiledPrograms();
    const pasted = await bench.stagePixels();
    const middle = await bench.middle(field);
    await bench.drag(middle, { x: middle.x + 20, y: middle.y }, { x: middle.x + 60, y: middle.y });
    await bench.expectChange(pasted, 0.1);
    expect(await bench.compiledPrograms()).toBe(programs);
    await bench.saved();
    expect(Object.values((await stored(id)).parameters).map(({ uniform }) => uniform)).toContain('shine');
    await cursorBehind('s.place * shine');
    await bench.keys(' * smooths');
    await bench.waitForText('.cm-tooltip-autocomplete', /smoothstep/);
    await bench.keys(Key.ENTER);
    await bench.keys('(0.0, 1.0, s.uu.y');
    await bench.keys(Key.ESCAPE, ')');
    await bench.waitForText('.code-problems', /Surface has no member "uu"\..*Write “uv”/);
  });

  it('writes a text in the other language and back, with the same picture, and takes it back in one step', async () => {
    await open(GLOW);
    const before = await bench.stagePixels();
    await bench.press('write in WGSL', '.code-bar');
    await bench.driver.wait(async () => (await shown()).includes('fn paint(s: Surface) -> vec4f'), 60_000, 'in WGSL');
    await noProblems();
    expect(await shown()).toContain('/** Glow: how bright it is. @value 0.4 in 0..1 */');
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.001);
    await bench.press('write in GLSL', '.code-bar');
    await bench.driver.wait(async () => (await shown()).includes('vec4 paint(Surface s)'), 60_000, 'in GLSL');
    await noProblems();
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.001);
    await bench.undo();
    await bench.driver.wait(async () => (await shown()).includes('fn paint'), 60_000, 'one step back');
  });

  it('writes a whole program with both stages in the other language, and back', async () => {
    const text =
      'uniform float rings;\nin vec2 at;\nout vec4 pixel;\nvoid main() {\n  pixel = vec4(vec3(fract(at.x * (4.0 + rings))), 1.0);\n}\n';
    const vertices =
      'in vec3 position;\nin vec2 uv;\nuniform mat4 clipFromObject;\nout vec2 at;\nvoid main() {\n  at = uv;\n  gl_Position = clipFromObject * vec4(position, 1.0);\n}\n';
    await open(text, vertices);
    const before = await bench.stagePixels();
    await bench.press('write in WGSL', '.code-bar');
    await bench.driver.wait(async () => (await shown()).includes('@vertex'), 60_000, 'in WGSL');
    await noProblems();
    expect(await shown()).toContain('@fragment');
    expect(await bench.text('.code-bar')).not.toContain('vertices');
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.001);
    await bench.press('write in GLSL', '.code-bar');
    await bench.driver.wait(async () => (await shown()).includes('void main()'), 60_000, 'in GLSL');
    await noProblems();
    expect(await bench.text('.code-bar')).toContain('vertices');
    expect((await bench.stagePixels()).changedShare(before)).toBeLessThan(0.001);
  });

  it('shows stripes where a loop ran out of its steps, and says which loop may', async () => {
    await open('vec4 paint(Surface s) {\n  float t = 0.0;\n  while (t < 9000.0) { t += 1.0; }\n  return vec4(vec3(0.5), 1.0);\n}\n');
    const { width, height } = await (await bench.see('.stage-canvas')).getRect();
    const pixels = await bench.stagePixels();
    const row = Array.from({ length: 24 }, (_, index) => pixels.at(Math.round(width / 2) + index, Math.round(height / 2))[0] ?? -1);
    expect(row.some((each) => each < 20)).toBeTrue();
    expect(row.some((each) => each > 235)).toBeTrue();
    await bench.press('checks', '.panel-about');
    await bench.waitForText('.finding-title', /Line 3: nothing says how often this loop goes round/);
  });

  it('has a function in WGSL as a node, and calls it from GLSL', async () => {
    const name = `ember${++made}`;
    const text = `/** Ember: glows where it is low. @inlet strength number "Strength" = 2 in 0..4 */\nfn ${name}(strength: f32) -> vec3f {\n  return vec3f(1.0, 0.2, 0.0) * strength;\n}\n`;
    await server.keep(newFunction(name, text), `fn-${name}`);
    const calls = `import ${name};\nvec4 paint(Surface s) {\n  return vec4(${name}(0.5), 1.0);\n}\n`;
    await open(calls);
    await noProblems();
    const { width, height } = await (await bench.see('.stage-canvas')).getRect();
    const [red = 0, , blue = 0] = (await bench.stagePixels()).at(width / 2, height / 2);
    expect(red - blue).toBeGreaterThan(60);
    await bench.openMaterial('material-puppet-cheek');
    await bench.addNode('ember', await bench.ground(60, 380));
    expect(await bench.text(`[data-kind="library-${name}"]`)).toContain('Strength');
  });

  it('completes by keys, with what is known at the place', async () => {
    await open();
    await cursorBehind('s.place * glow');
    await bench.keys(' * smooths');
    await bench.waitForText('.cm-tooltip-autocomplete', /smoothstep/);
    await bench.keys(Key.ENTER);
    await bench.driver.wait(async () => (await shown()).includes('smoothstep'), 60_000, 'completed');
    await bench.keys('(0.0, 1.0, s.');
    await bench.waitForText('.cm-tooltip-autocomplete', /toEye/);
    await bench.keys('uv');
    await bench.keys(Key.ESCAPE, '.y)');
    await noProblems();
    expect(await shown()).toContain('s.place * glow * smoothstep(0.0, 1.0, s.uv.y)');
  });

  it('takes typing back step by step, text and picture, from the same history as all else', async () => {
    await open();
    const before = await bench.stagePixels();
    await choose('s.place');
    await type('vec3(1.0)');
    await bench.expectChange(before, 0.1);
    const programs = await bench.compiledPrograms();
    await bench.chord(Key.CONTROL, 'z');
    await bench.driver.wait(async () => (await shown()) === GLOW, 60_000, 'the text is back');
    await bench.driver.wait(async () => (await bench.stagePixels()).changedShare(before) < 0.01, 60_000, 'the picture is back');
    expect(await bench.compiledPrograms())
      .withContext('nothing compiles twice for the same text')
      .toBe(programs);
    await bench.chord(Key.CONTROL, Key.SHIFT, 'z');
    await bench.driver.wait(async () => (await shown()).includes('vec3(1.0)'), 60_000, 'done again');
  });

  it('gives a name another one everywhere', async () => {
    const id = await open();
    await cursorBehind('uniform float glo');
    await bench.chord(Key.ALT, 'r');
    await bench.waitForText('.rename-field', /Call “glow” \(2 places\)/);
    await bench.keys('brightness', Key.ENTER);
    await bench.driver.wait(async () => (await shown()).includes('s.place * brightness'), 60_000, 'renamed');
    await noProblems();
    await bench.saved();
    expect(Object.keys((await stored(id)).parameters).length).toBe(1);
  });

  it('goes from a node to its lines and back', async () => {
    await bench.openMaterial('material-puppet-cheek');
    await bench.choose('bands');
    await bench.press('code', '.graph-bar');
    await bench.waitForText('.code-marked', /Lit bands1 = bands\(/);
    await cursorBehind('Lit rim1 = rim');
    await bench.press('to the node', '.code-bar');
    await bench.see('[data-kind="rim"].card-selected');
    expect(await bench.selected())
      .withContext('only what was asked for')
      .toBe(1);
  });

  it('reads a graph in WGSL, and the whole program that a device gets, from a node to its lines and back', async () => {
    await bench.openMaterial('material-puppet-cheek');
    await bench.choose('bands');
    await bench.press('code', '.graph-bar');
    await bench.press('WGSL', '.code-bar');
    await bench.waitForText('.code-marked', /let bands1 = bands\(/);
    await bench.press('pixel program', '.code-bar');
    await bench.waitForText('.code-marked', /let bands1 = bands\(.*Material\.bandsCount/);
    await bench.press('GLSL', '.code-bar');
    await bench.waitForText('.code-marked', /Lit bands1 = bands\(.*bandsCount/);
    await cursorBehind('Lit rim1 = rim');
    await bench.press('to the node', '.code-bar');
    await bench.see('[data-kind="rim"].card-selected');
  });

  it('turns a graph into code that gives the same picture', async () => {
    await bench.openMaterial('material-kite-dusk');
    const graph = await bench.stagePixels();
    await bench.press('code', '.graph-bar');
    await bench.press('turn into code', '.code-bar');
    await bench.driver.wait(async () => (await bench.driver.getTitle()).startsWith('Kite dusk in code'), 60_000, 'the copy is open');
    await bench.ready();
    expect((await bench.stagePixels()).changedShare(graph)).toBeLessThan(0.01);
    expect((await bench.all('.parameter-row')).length).toBeGreaterThan(3);
  });

  it('edits a function of the Library, and all materials that use it follow', async () => {
    const suffix = ++made;
    const name = `shade${suffix}`;
    await server.keep(newFunction(name, `vec3 ${name}(vec3 colour) {\n  return colour * 0.2;\n}\n`), `fn-${name}`);
    const text = (colour: string): string => `import ${name};\nvec4 paint(Surface s) {\n  return vec4(${name}(${colour}), 1.0);\n}\n`;
    const inCode = newCodeMaterial('Left', {}, { text: text('vec3(1.0, 0.3, 0.1)') });
    const other = newCodeMaterial('Right', {}, { text: text('vec3(0.1, 0.4, 1.0)') });
    const set: StageSet = {
      ...newSet('Two'),
      meshes: {
        left: newMesh('sphere', {}, { order: 0, placing: { position: [-1.2, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] } }),
        right: newMesh('sphere', {}, { order: 1, placing: { position: [1.2, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] } }),
      },
      partRules: { right: { order: 0, mesh: 'right', pattern: '*', material: `right${suffix}`, values: {} } },
    };
    await server.keep(set, `two${suffix}`);
    await server.keep(other, `right${suffix}`);
    await server.keep({ ...inCode, seenIn: { set: `two${suffix}`, rig: PLAIN_RIG } }, `left${suffix}`);
    await bench.openMaterial(`left${suffix}`);
    await bench.driver.sleep(500);
    await bench.sharp();
    const before = await bench.stagePixels();
    await bench.press('functions', '.code-bar');
    await bench.press(name, '.menu');
    await bench.driver.wait(async () => (await shown()).includes('colour * 0.2'), 60_000, 'the function is shown');
    await choose('0.2');
    await type('0.9');
    const { width, height } = await (await bench.see('.stage-canvas')).getRect();
    const brighter = async (): Promise<boolean> => {
      const now = await bench.stagePixels();
      const sum = (pixels: typeof now, across: number): number =>
        pixels
          .at(width * across, height / 2)
          .slice(0, 3)
          .reduce((total, each) => total + each, 0);
      return [0.3, 0.7].every((across) => sum(now, across) > sum(before, across) + 60);
    };
    await bench.driver.wait(brighter, 60_000, 'both follow');
    await bench.press('who uses it', '.code-bar');
    expect(await bench.waitForText('.code-users', /Left[\s\S]*Right/)).not.toContain('Written');
  });

  it('reads the code of a built-in, and forks it', async () => {
    await bench.openMaterial('material-puppet-cheek');
    await bench.choose('rim');
    await bench.command('Read the selected node’s code');
    await bench.waitForText('.code-bar', /rim\.glsl/);
    await bench.press('fork', '.code-bar');
    await bench.waitForText('.code-bar', /myRim/);
    expect(await shown()).toContain('Lit myRim(');
    await noProblems();
  });

  it('is begun from the Library', async () => {
    await bench.openLibrary();
    await bench.press('start from', '.library-head');
    await bench.press('code (GLSL)', '.menu');
    await bench.ready();
    expect(await shown()).toContain('Lit paint(Surface s)');
    await noProblems();
  });

  it('draws the smallest program, and says what is wrong in its vertex stage there', async () => {
    await bench.openMaterial('material-signal-flag');
    const drawn = await bench.stagePixels();
    await bench.press('vertices', '.code-bar');
    await choose('clipFromObject *');
    await type('clipFromObjekt *');
    await bench.waitForText('.code-problems', /Nothing here is called "clipFromObjekt"/);
    await bench.chord(Key.ALT, 'm');
    await noProblems();
    expect(await shown()).toContain('clipFromObject *');

    // From the other stage both keys find it, too.
    await choose('clipFromObject *');
    await type('clipFromObjekt *');
    await bench.waitForText('.code-problems', /Nothing here is called "clipFromObjekt"/);
    await bench.press('material', '.code-bar');
    await bench.waitForText('.code-bar [role="tab"]', /vertices 1/);
    await bench.click('.cm-content');
    await bench.chord(Key.ALT, 'n');
    await bench.waitForText('.code-bar [aria-selected="true"]', /^vertices/);
    await bench.press('material', '.code-bar');
    await bench.click('.cm-content');
    await bench.chord(Key.ALT, 'm');
    await noProblems();
    expect(await bench.text('.code-bar [aria-selected="true"]')).toBe('vertices');
    expect(await shown()).toContain('clipFromObject *');
    expect((await bench.stagePixels()).changedShare(drawn))
      .withContext('the picture, as before')
      .toBeLessThan(0.01);
  });

  it('follows another editor: a file that is saved is on the Stage', async () => {
    const id = await open();
    const before = await bench.stagePixels();
    const folder = mkdtempSync(join(tmpdir(), 'brelvin-own-editor-'));
    const ended = new AbortController();
    const lines: string[] = [];
    const running = commandLine(
      ['watch', folder, '--server', server.address],
      { out: (line) => void lines.push(line), err: (line) => void lines.push(line) },
      ended.signal,
    );
    await bench.driver.wait(async () => lines.some((line) => line.includes('watching')), 60_000, 'watching');
    writeFileSync(join(folder, 'mine.glsl'), `// @material ${id}\n${GLOW.replace('s.place', 'vec3(0.1, 0.9, 0.3)')}`);
    await bench.expectChange(before, 0.1);
    await bench.driver.wait(async () => (await shown()).includes(`@material ${id}`), 60_000, 'the text is there too');
    ended.abort();
    expect(await running).toBe(0);
  });

  it('is typed over as a whole, marked errors and all, and nothing of it is told to the console', async () => {
    const id = await open();
    await browser.consoleErrors();
    for (const text of ['nothing that is code', '@fragment fn pixels(', 'vec4 paint(Surface s) {return vec4(0.1, 0.7, 0.2, 1.0); ']) {
      await bench.click('.cm-content');
      await bench.chord(Key.CONTROL, 'a');
      await bench.keys(...text, Key.ESCAPE);
      await bench.driver.wait(async () => (await shown()).startsWith(text.trimEnd()), 60_000, text);
      if (!text.startsWith('vec4')) await bench.see('.cm-lintRange-error, .cm-lintPoint-error');
    }
    await noProblems();
    // A bracket is put round what is chosen, as if it were typed anywhere else.
    await choose('0.1');
    await bench.keys('(');
    await bench.driver.wait(async () => (await shown()).includes('vec4((0.1), 0.7'), 60_000, 'surrounded');
    const kept = 'vec4 paint(Surface s) {return vec4((0.1), 0.7, 0.2, 1.0); }';
    await bench.driver.wait(async () => (await stored(id)).code?.text === kept, 60_000, 'kept');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  describe('that is bad', () => {
    it('in an endless loop is broken off, and the Stage goes on', async () => {
      await open();
      await cursorBehind('paint(Surface s) {');
      await type(' float t = 0.0; while (true) { t += 1.0; }');
      await bench.waitForText('.code-problems', /brings it to an end/);
      await bench.sharp();
      expect(await bench.stageAttribute('painted')).toBe('true');
    });

    it('in size is told at once; nothing is lost, and the page answers', async () => {
      const id = await open();
      await bench.click('.cm-content');
      const started = Date.now();
      await bench.driver.executeScript(`
        const data = new DataTransfer();
        data.setData('text/plain', '// ' + 'x'.repeat(99) + '\\n' + ('float a = 1.0; // padding\\n').repeat(400000));
        document.querySelector('.cm-content').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
      `);
      await bench.waitForText('.code-trouble', /200,000 are the most/);
      expect(Date.now() - started).toBeLessThan(6000);
      const answered = Date.now();
      await bench.press('parts', '.graph-bar');
      await bench.see('.parts-part');
      expect(Date.now() - answered).toBeLessThan(1500);
      expect((await stored(id)).code?.text).toBe(GLOW);
    });

    for (const [what, text, words] of [
      [
        'nested 10,000 deep',
        `vec4 paint(Surface s) { return vec4(${'('.repeat(10_000)}1.0${')'.repeat(10_000)}); }`,
        /nested more than 256 deep/,
      ],
      ['calling itself', 'float f(float x) { return f(x); }\nvec4 paint(Surface s) { return vec4(f(1.0)); }', /calls itself/],
      [
        'with a huge array',
        'struct A { float a[4096]; };\nstruct B { A b[4096]; };\nvec4 paint(Surface s) { return vec4(1.0); }',
        /holds 16777216 numbers/,
      ],
      [
        'importing nothing',
        'import nowhere;\nvec4 paint(Surface s) { return vec4(nowhere(1.0)); }',
        /no function "nowhere" in the Library/,
      ],
      ['of odd letters', 'vec4 paint(Surface s) { return vec4(1.0) \u202e; } ä \u0001', /has no meaning here/],
    ] as const) {
      it(`${what} is said in words, and the Stage survives`, async () => {
        const id = await server.keep({
          ...newCodeMaterial('Bad', { set: 'set-plain-sphere', rig: PLAIN_RIG }, { text: GLOW }),
          code: { text },
        });
        await bench.driver.get(`${server.address}/bench/${id}`);
        await bench.waitForText('.code-problems', words);
        await bench.see('.stage-notice');
        expect(await browser.consoleErrors()).toEqual([]);
      });
    }
  });
});
