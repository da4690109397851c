import { filesForParts } from './part-files';

const CUBE = ['front', 'back', 'right', 'left', 'top', 'bottom'];

describe('Files for parts', () => {
  it('go by the part’s name at the end of theirs, the longer name first', () => {
    const files = ['crate_top.png', 'crate_LEFT.png', 'crate-front.png', 'readme.png'];
    expect(Object.fromEntries(filesForParts(files, CUBE, undefined))).toEqual({ top: 0, left: 1, front: 2 });
    expect(Object.fromEntries(filesForParts(['a_near_wall.png', 'a_wall.png'], ['wall', 'near wall'], undefined))).toEqual({
      'near wall': 0,
      wall: 1,
    });
  });

  it('go by the sides of a cube where their names tell these', () => {
    const files = ['nx.png', 'px.png', 'py.png', 'ny.png', 'pz.png', 'nz.png'];
    expect(filesForParts(files, CUBE, [1, 0, 2, 3, 4, 5]).get('right')).toBe(1);
    expect(filesForParts(files, CUBE, [1, 0, 2, 3, 4, 5]).get('back')).toBe(5);
    expect(filesForParts(files, ['sphere'], [1, 0, 2, 3, 4, 5]).size).toBe(0);
  });
});
