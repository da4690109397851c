import type { MaterialImage } from '@brelvin/contract';
import { newMaterial, type ImageLack } from '@brelvin/core';
import { StageSurfaces } from './stage-surfaces';

describe('What the Stage misses', () => {
  const lack = (asset: string): ImageLack => ({ name: asset, asset, reason: 'away', again: false });

  it('is what its materials show, and no longer what was replaced', () => {
    const nothing = (): void => undefined;
    const surfaces = new StageSurfaces({ prepare: () => undefined, begun: nothing, worn: nothing, refused: nothing });
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
