import { ambiguousFile, findNamedFile } from './named-files';

const files = (...names: string[]): { name: string }[] => names.map((name) => ({ name }));

function found(path: string, from: string, ...names: string[]): string | undefined {
  return findNamedFile(path, from, files(...names))?.file.name;
}

describe('A file that another one names', () => {
  it('is not another whose name only ends like it', () => {
    expect(found('wood.png', 'chair.gltf', 'dark_wood.png', 'wood.png')).toBe('wood.png');
    expect(found('wood.png', 'chair.gltf', 'dark_wood.png')).toBeUndefined();
    expect(found('tex/wood.png', 'chair.gltf', 'darktex/wood.png', 'kit/tex/wood.png')).toBe('kit/tex/wood.png');
  });

  it('is looked for from the folder of the one that names it, then by its folders, then by its name', () => {
    const all = ['wood.png', 'kit/wood.png', 'kit/chair/tex/wood.png', 'other/tex/wood.png'];
    expect(found('tex/wood.png', 'kit/chair/chair.gltf', ...all)).toBe('kit/chair/tex/wood.png');
    expect(found('../wood.png', 'kit/chair/chair.gltf', ...all)).toBe('kit/wood.png');
    expect(found('wood.png', 'kit/chair/chair.gltf', ...all)).toBe('wood.png');
    expect(found('C:\\scans\\Wood.PNG', 'chair.obj', 'kit/wood.png')).toBe('kit/wood.png');
    expect(found('./tex\\wood.png', 'chair.obj', 'tex/wood.png')).toBe('tex/wood.png');
    expect(found('wood.png', 'chair.obj', 'steel.png')).toBeUndefined();
  });

  it('is told to be ambiguous where several are called so', () => {
    const twice = findNamedFile('wood.png', 'chair.obj', files('a/wood.png', 'b/wood.png'));
    expect(twice?.file.name).toBe('a/wood.png');
    expect(ambiguousFile('wood.png', twice!)).toContain('“a/wood.png” or “b/wood.png”');
    expect(ambiguousFile('wood.png', findNamedFile('wood.png', 'x', files('wood.png', 'b/wood.png'))!)).toBeUndefined();
  });
});
