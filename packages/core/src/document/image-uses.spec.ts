import { type MaterialImage, validate, MATERIAL } from '@brelvin/contract';
import { edited, materialOf } from '../testing/graphs';
import { imageMemory, imageUses, linkImage, removeUnusedImages, replaceImage } from './image-uses';

const image: MaterialImage = {
  name: 'Glaze',
  asset: 'a'.repeat(64),
  width: 8,
  height: 4,
  role: 'data',
  wrapX: 'repeat',
  wrapY: 'clamp',
  filter: 'sharp',
  uvSet: 1,
};

function twoImages(): ReturnType<typeof materialOf> {
  const material = materialOf({ pic: 'image', other: 'image' });
  const nodes = {
    pic: { ...material.surface.nodes['pic']!, image: 'glaze' },
    other: { ...material.surface.nodes['other']!, image: 'glaze' },
  };
  const parameters = { p: { name: 'P', type: 'image' as const, value: 0, order: 0, image: 'glaze' } };
  return { ...material, surface: { ...material.surface, nodes }, parameters, images: { glaze: image, idle: image } };
}

describe('Images of a material', () => {
  it('know what shows them', () => {
    const uses = imageUses(twoImages());
    expect(uses.get('glaze')).toEqual([{ node: 'pic', group: undefined }, { node: 'other', group: undefined }, { parameter: 'p' }]);
    expect(uses.get('idle')).toEqual([]);
  });

  it('are replaced wherever they are shown, read as before', () => {
    const material = twoImages();
    const after = edited(material, replaceImage(material, 'glaze', { asset: 'b'.repeat(64), width: 16, height: 16 }));
    expect(after.images['glaze']).toEqual({ ...image, asset: 'b'.repeat(64), width: 16, height: 16 });
    expect(after.surface).toBe(material.surface);
  });

  it('go when nothing shows them', () => {
    const material = twoImages();
    expect(Object.keys(edited(material, removeUnusedImages(material)).images)).toEqual(['glaze']);
  });

  it('follow a name, or keep their copy', () => {
    const material = twoImages();
    const linked = edited(material, linkImage('glaze', 'glaze.png'));
    expect(linked.images['glaze']?.linked).toBe('glaze.png');
    expect(validate(MATERIAL, linked)).toEqual([]);
    expect(edited(linked, linkImage('glaze', undefined)).images['glaze']).toEqual(image);
  });

  it('take four bytes a pixel and a third more for mips', () => expect(imageMemory({ width: 1024, height: 1024 })).toBe(5_592_405));
});
