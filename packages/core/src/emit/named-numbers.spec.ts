import type { Material } from '@brelvin/contract';
import { newCodeMaterial } from '../compile/code/new-code';
import { compileMaterial } from '../compile/compile-material';
import type { CompiledMaterial } from '../compile/compiled-material';
import { demoLibrary } from '../demo/demo-library';
import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { materialOf } from '../testing/graphs';
import { compileFor, compileToRead } from './emitted-material';
import { withNamedNumbers } from './named-numbers';
import { TARGETS } from './targets';

function compiledOf(material: Material): CompiledMaterial {
  const { compiled, problems } = compileMaterial(material, demoLibrary());
  if (!compiled) throw new Error(problems.map(({ message }) => message).join());
  return compiled;
}

const fragmentOf = (material: Material, target: keyof typeof TARGETS): string =>
  compileToRead(TARGETS[target], material, demoLibrary()).compiled?.program.fragment.text ?? '';

const bands = (name?: string): Material => {
  const material = materialOf(
    { paint: ['colour', { value: [0.9, 0.4, 0.1] }], light: ['bands', { count: 4 }] },
    { 'light.base': 'paint', 'dock.colour': 'light' },
  );
  const light = { ...material.surface.nodes['light']!, name };
  return { ...material, surface: { ...material.surface, nodes: { ...material.surface.nodes, light } } };
};

describe('The numbers of a material in programs that are read', () => {
  it('are called as their nodes and inlets are, or as people have named those', () => {
    expect(fragmentOf(bands(), 'glsl')).toMatch(/uniform Material \{[^}]*vec3 colourValue;[^}]*float bandsCount;/);
    expect(fragmentOf(bands('Paper cut'), 'wgsl')).toMatch(/struct MaterialBlock \{[^}]*paperCutCount: f32,/);
    expect(fragmentOf(bands('Paper cut'), 'wgsl')).toContain('Material.paperCutCount');
  });

  it('are called as their parameters are; two of one name are told apart, and nothing hides another', () => {
    const text = 'uniform float a; uniform float b; vec3 paint(Surface s) { return vec3(a, b, s.place.x); }';
    const material = newCodeMaterial('two', {}, { text });
    const [first, second] = Object.keys(material.parameters);
    const named = (name: string, other: string): Material => ({
      ...material,
      parameters: {
        [first!]: { ...material.parameters[first!]!, name },
        [second!]: { ...material.parameters[second!]!, name: other },
      },
    });
    expect(fragmentOf(named('Glow', 'glow'), 'glsl')).toMatch(/float glow;\s*float glow_2;/);
    // What the library, a language or the writer itself has by this name stays what it is.
    for (const [target, words] of [
      ['glsl', ['pixel', 'sin']],
      ['wgsl', ['main', 'var']],
    ] as const) {
      const { compiled } = compileToRead(TARGETS[target], named(words[0], words[1]), demoLibrary());
      const plain = compileFor(TARGETS[target], material, demoLibrary()).compiled;
      const count = (each: typeof compiled, word: string): number =>
        (each?.program.fragment.text.match(new RegExp(`\\b${word}\\b`, 'g')) ?? []).length;
      for (const word of words) expect(count(compiled, word)).withContext(word).toBe(count(plain, word));
    }
  });

  it('stand where devices look for them, in all demos', () => {
    let count = 0;
    for (const { document } of DEMO_DOCUMENTS) {
      if (document.format !== 'brelvin-material') continue;
      const plain = compiledOf(document);
      if (plain.slots.length === 0) continue;
      const named = withNamedNumbers(plain, document);
      const block = named.blocks.find(({ name }) => name === 'Material');
      const [wanted, found] = [plain.slots.map(({ offset }) => offset), [...(block?.members.values() ?? [])].map(({ offset }) => offset)];
      expect(found)
        .withContext(document.name)
        .toEqual([...wanted].sort((a, b) => a - b));
      expect(block?.words).toBe(plain.blocks.find(({ name }) => name === 'Material')?.words);
      count++;
    }
    expect(count).toBeGreaterThan(15);
  });

  it('leave the program of a device as it is: a name compiles nothing anew', () => {
    expect(compiledOf(bands()).key).toBe(compiledOf(bands('Paper cut')).key);
    const { program } = compileFor(TARGETS.glsl, bands('Paper cut')).compiled!;
    expect(program).toEqual(compileFor(TARGETS.glsl, bands()).compiled!.program);
  });
});
