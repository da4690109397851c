import { libraryProgram } from '../catalogue/library';
import { compileMaterial } from '../compile/compile-material';
import { plainVertexModule } from '../compile/surface-programs';
import { linkProgram } from '../ir/program';
import { materialOf } from '../testing/graphs';
import { BINDING_GROUPS, bindingsOf, layoutOf, type BindingGroup, type ProgramLayout } from './bindings';

const keys = (layout: ProgramLayout): Record<BindingGroup, string> =>
  Object.fromEntries(BINDING_GROUPS.map((group, number) => [group, layout[number]?.key ?? 'absent'])) as Record<BindingGroup, string>;

describe('What a program reads', () => {
  it('is grouped by how often it changes', () => {
    const material = materialOf({ a: ['lambert', { colour: [1, 0, 0] }] }, { 'dock.colour': 'a' });
    const { compiled } = compileMaterial(material, undefined, { variants: ['shadowed'] });
    expect(keys(layoutOf(compiled!.program))).toEqual({ picture: 'Frame,Lights', own: 'Material', part: 'Object', pass: '' });
    expect(keys(layoutOf(compiled!.variants.shadowed!)).picture).toBe('Frame,Lights,flat fetched shadowAtlas');
  });

  it('is its own in programs that are drawn over a whole target', () => {
    const program = linkProgram(libraryProgram('full_screen.vert'), libraryProgram('backdrop_environment.frag'));
    expect(keys(layoutOf(program))).toEqual({ picture: '', own: 'EnvironmentBackdrop,cube backdropCube', part: '', pass: '' });
  });

  it('has a place for each: blocks, then images, each before the sampler that it needs', () => {
    const { compiled } = compileMaterial(materialOf({ a: ['sceneColour', {}] }, { 'dock.colour': 'a' }), undefined, {
      variants: ['shadowed'],
    });
    const places = bindingsOf(layoutOf(compiled!.program));
    expect(places.get('Frame')).toEqual({ group: 0, binding: 0 });
    expect(places.get('Material')?.group).toBe(1);
    // Read pixel by pixel, so that there is nothing to choose between pixels.
    expect(places.get('sceneBehind')?.sampler).toBeUndefined();
    const backdrop = bindingsOf(layoutOf(linkProgram(libraryProgram('full_screen.vert'), libraryProgram('backdrop_environment.frag'))));
    expect(backdrop.get('backdropCube')).toEqual({ group: 1, binding: 1, sampler: 2 });
  });

  it('names what changes from light to light apart', () => {
    const program = linkProgram(plainVertexModule('shadow.vert'), libraryProgram('quiet.frag'));
    expect(keys(layoutOf(program)).pass).toBe('Caster');
  });
});
