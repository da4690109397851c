import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { compileFor, GLSL_TARGET, newCodeMaterial } from '@brelvin/core';
import { BUILTIN_RULES } from '../../packages/core/src/testing/standard/builtins';
import { EXPRESSION_RULES } from '../../packages/core/src/testing/standard/expressions';
import { STATEMENT_RULES } from '../../packages/core/src/testing/standard/statements';
import { TYPE_RULES } from '../../packages/core/src/testing/standard/types';

const RULES = [...TYPE_RULES, ...EXPRESSION_RULES, ...STATEMENT_RULES, ...BUILTIN_RULES];

/** Wrong programs that the validator takes: it leaves them to the linker, or overlooks them. */
const OVERLOOKED = new Set([
  '4.1.9: no arrays of void',
  '4.3.9: flat',
  '4.3.9: centroid',
  '6.1: a prototype needs a body',
  '6.1: no recursion',
  '6.1: no recursion round a corner',
  '6.2: switch by uint',
]);

describe('GLSL ES 3.00, beside the validator of the standard’s own house', () => {
  let folder: string;

  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'glsl-'));
  });

  afterAll(() => {
    rmSync(folder, { recursive: true });
  });

  /** What the validator says of each text; nothing where it takes it. */
  function validated(texts: ReadonlyMap<string, string>): Map<string, string> {
    const files = new Map<string, string>();
    [...texts].forEach(([name, text], index) => {
      const file = join(folder, `${index}.frag`);
      writeFileSync(file, text);
      files.set(file, name);
    });
    const { stdout } = spawnSync('glslangValidator', [...files.keys()], { encoding: 'utf8', maxBuffer: 64 << 20 });
    const said = new Map<string, string>();
    let current = '';
    for (const line of stdout.split('\n')) {
      if (files.has(line.trim())) current = files.get(line.trim()) ?? '';
      else if (line.startsWith('ERROR')) said.set(current, `${said.get(current) ?? ''}${line}\n`);
    }
    return said;
  }

  it('takes all right programs as they are written', () => {
    const said = validated(new Map(RULES.map(({ section, rule, right }, index) => [`${index} ${section}: ${rule}`, right])));
    expect([...said].map(([name, words]) => `${name}: ${words}`)).toEqual([]);
  });

  it('takes all right programs as we write them', () => {
    const ours = new Map<string, string>();
    RULES.forEach(({ section, rule, right }, index) => {
      const { compiled } = compileFor(GLSL_TARGET, newCodeMaterial('m', {}, { text: right }));
      if (compiled) ours.set(`${index} ${section}: ${rule}`, compiled.program.fragment.text);
    });
    // Only images that materials cannot be given are left out.
    expect(ours.size).toBeGreaterThan(700);
    expect([...validated(ours)].map(([name, words]) => `${name}: ${words}`)).toEqual([]);
  });

  it('refuses the wrong ones, too', () => {
    const wrong = RULES.filter((each) => each.wrong && !OVERLOOKED.has(`${each.section}: ${each.rule}`));
    const texts = new Map(wrong.map(({ section, rule, wrong: program }, index) => [`${index} ${section}: ${rule}`, program?.text ?? '']));
    const said = validated(texts);
    expect([...texts.keys()].filter((name) => !said.has(name))).toEqual([]);
  });
});
