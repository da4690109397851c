import { readDocumentation } from './documentation';

describe('readDocumentation', () => {
  it('splits title, help and tags', () => {
    const comment = '/**\n * Bands: light in flat steps.\n * @kind bands 1\n * @words toon,\n *   cel\n */';
    expect(readDocumentation(comment)).toEqual({
      title: 'Bands',
      help: 'Light in flat steps.',
      tags: [
        { name: 'kind', text: 'bands 1' },
        { name: 'words', text: 'toon, cel' },
      ],
    });
  });

  it('takes help over several lines', () => {
    const { title, help } = readDocumentation('/**\n * Rim: a glow\n * along the outline.\n */');
    expect([title, help]).toEqual(['Rim', 'A glow along the outline.']);
  });
});
