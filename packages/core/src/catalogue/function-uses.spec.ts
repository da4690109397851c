import { newCodeMaterial } from '../compile/code/new-code';
import { newRig } from '../document/new-documents';
import { applyChanges } from '../document/transaction';
import { materialOf, shortGraph } from '../testing/graphs';
import { functionKindId, FunctionLibrary, type FunctionTexts } from './function-library';
import { functionsNeededBy, functionsUsedBy, newFunction, renameFunction, takeNameOver } from './function-uses';
import { library } from './library';

describe('Who uses what', () => {
  it('is told by the import lines of code, pixels and vertices', () => {
    const material = newCodeMaterial(
      'm',
      {},
      {
        text: '// import not;\n/*\nimport neither;\n*/\nimport soft;\nimport dusk;\nvec4 paint(Surface s) { return vec4(1.0); }',
        vertices: 'import sway;\nvoid main() { }',
      },
    );
    expect(functionsUsedBy(material)).toEqual(['dusk', 'soft', 'sway']);
  });

  it('is told by nodes, those in groups too, each function once', () => {
    const { surface, ...rest } = materialOf({ a: functionKindId('soft'), b: functionKindId('soft'), c: 'colour' });
    const group = { name: 'G', rev: 1, inlets: [], outlets: [], graph: shortGraph({ d: functionKindId('dusk') }) };
    expect(functionsUsedBy({ ...rest, surface, groups: { g: group as never } })).toEqual(['dusk', 'soft']);
  });

  it('is told for functions themselves, and nothing of documents without code', () => {
    expect(functionsUsedBy(newFunction('warm', 'import dusk;\nvec3 warm(vec3 c) { return dusk(c); }'))).toEqual(['dusk']);
    expect(functionsUsedBy(newRig('r'))).toEqual([]);
  });

  it('goes on to what functions import in their turn, under names of today, and ends in circles', () => {
    const texts: FunctionTexts = new Map([
      ['top', { text: 'import old;\nimport missing;' }],
      ['fresh', { text: 'import round;', formerNames: ['old'] }],
      ['round', { text: 'import fresh;' }],
      ['other', { text: '' }],
    ]);
    const material = newCodeMaterial('m', {}, { text: 'import top;' });
    expect([...functionsNeededBy(material, texts)].sort()).toEqual(['fresh', 'missing', 'round', 'top']);
  });
});

describe('Renaming a function of the Library', () => {
  const first = newFunction(
    'glow',
    '/** Glow: more than glow. */\nfloat glow(float x) { return x; }\nfloat glowing(float x) { return glow(x); }',
  );

  it('renames it in its text, and neither in words nor in longer names', () => {
    const renamed = applyChanges(first, renameFunction(first, 'shine').changes);
    expect(renamed.text).toBe(
      '/** Glow: more than glow. */\nfloat shine(float x) { return x; }\nfloat glowing(float x) { return shine(x); }',
    );
    expect([renamed.name, renamed.formerNames]).toEqual(['shine', ['glow']]);
  });

  it('renames it where a #define stands for it, so that the function still can be read', () => {
    const defined = newFunction('glow', '#define MORE glow\nfloat glow(float x) { return x; }\nfloat twice(float x) { return MORE(x); }');
    const { text } = applyChanges(defined, renameFunction(defined, 'shine').changes);
    expect(text).toBe('#define MORE shine\nfloat shine(float x) { return x; }\nfloat twice(float x) { return MORE(x); }');
    const errors = new FunctionLibrary(new Map([['shine', { text }]]), library()).read('shine').diagnostics;
    expect(errors.filter(({ severity }) => severity === 'error')).toEqual([]);
  });

  it('takes over the name that its text already has', () => {
    const typed = { ...first, text: first.text.replaceAll('glow(', 'shine(') };
    const renamed = applyChanges(typed, takeNameOver(typed, 'shine').changes);
    expect([renamed.name, renamed.text, renamed.formerNames]).toEqual(['shine', typed.text, ['glow']]);
  });

  it('and back again leaves the other name as the former one', () => {
    const there = applyChanges(first, renameFunction(first, 'shine').changes);
    const back = applyChanges(there, renameFunction(there, 'glow').changes);
    expect([back.text, back.formerNames]).toEqual([first.text, ['shine']]);
  });
});

describe('What a new function begins with', () => {
  it('is right, and a node with a range and help', () => {
    const { text } = newFunction('afterglow');
    const found = new FunctionLibrary(new Map([['afterglow', { text }]]), library());
    expect(found.read('afterglow').diagnostics).toEqual([]);
    const kind = found.kinds().get(functionKindId('afterglow'));
    expect(kind?.inlets.map(({ label, low, high }) => [label, low, high])).toEqual([
      ['Colour', undefined, undefined],
      ['Amount', 0, 1],
    ]);
  });
});
