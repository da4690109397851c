import type { MaterialImage } from '@brelvin/contract';
import { compileFor, GLSL_TARGET, newMaterial, type ImageLack, type LitProgram, type MaterialPipelines } from '@brelvin/core';
import { StageSurfaces } from './stage-surfaces';

describe('What the Stage misses', () => {
  const lack = (asset: string): ImageLack => ({ name: asset, asset, reason: 'away', again: false });

  it('is what its materials show, and no longer what was replaced', () => {
    const nothing = (): void => undefined;
    const surfaces = new StageSurfaces({ fits: () => true, prepare: () => undefined, begun: nothing, worn: nothing, refused: nothing });
    const wearing = (asset: string): void => {
      const image = { name: asset, asset, width: 4, height: 4 } as MaterialImage;
      surfaces.setMaterial('m', { ...newMaterial('m'), images: { picture: image } });
    };
    const lacks = [lack('rope'), lack('sail')];
    expect(surfaces.missed(lacks)).toEqual([]);
    wearing('rope');
    expect(surfaces.missed(lacks)).toEqual([lack('rope')]);
    wearing('mended');
    expect(surfaces.missed(lacks)).toEqual([]);
  });
});

describe('The light of the Stage', () => {
  const material = newMaterial('m');
  const { compiled } = compileFor(GLSL_TARGET, material, undefined, { variants: ['shadowed'] });
  let asked: string[];
  let surfaces: StageSurfaces;
  let speaks: string;

  beforeEach(() => {
    asked = [];
    const has = new Set<LitProgram>();
    const take = (lit: Iterable<LitProgram>): void => {
      for (const each of lit) has.add(each);
      asked.push([...lit].join());
    };
    const surface = {
      key: compiled!.key,
      compiled,
      lacks: (_: unknown, lit: Iterable<LitProgram>) => [...lit].some((each) => !has.has(each)),
      learn: async (_: unknown, lit: Iterable<LitProgram>) => take(lit),
    };
    const prepare = async (_id: string, _compiled: unknown, _material: unknown, lit: Iterable<LitProgram>): Promise<MaterialPipelines> => {
      take(lit);
      return surface as unknown as MaterialPipelines;
    };
    const nothing = (): void => undefined;
    speaks = 'glsl';
    surfaces = new StageSurfaces({
      fits: ({ program }) => program.target === speaks,
      prepare,
      begun: nothing,
      worn: nothing,
      refused: nothing,
    });
    surfaces.setMaterial('m', material);
  });

  it('takes nothing that is in the language of another device', async () => {
    speaks = 'wgsl';
    await surfaces.show('m', compiled!);
    expect([asked, surfaces.has('m')]).toEqual([[], false]);
    speaks = 'glsl';
    await surfaces.show('m', compiled!);
    expect(surfaces.has('m')).toBeTrue();
  });

  it('says which program of a material is brought', async () => {
    await surfaces.light(new Set(['shadowed']));
    await surfaces.show('m', compiled!);
    expect(asked).toEqual(['shadowed']);
  });

  it('has the programs brought that another one needs, once', async () => {
    await surfaces.light(new Set(['shadowed']));
    await surfaces.show('m', compiled!);
    await surfaces.light(new Set(['plain']));
    await surfaces.light(new Set(['shadowed', 'plain']));
    expect(asked).toEqual(['shadowed', 'plain']);
  });

  it('may change while a program is on its way', async () => {
    await surfaces.light(new Set(['shadowed']));
    const shown = surfaces.show('m', compiled!);
    await surfaces.light(new Set(['plain']));
    await shown;
    expect(asked).toEqual(['shadowed', 'plain']);
  });
});
