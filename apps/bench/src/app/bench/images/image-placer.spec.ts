import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { MaterialImage } from '@brelvin/contract';
import { compileMaterial, library, newMaterial, NO_SEAMS, type ImageFacts } from '@brelvin/core';
import { FunctionShelf } from '../../shared/functions/function-shelf';
import { ImageShelf } from '../../shared/images/image-shelf';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { HeldDocuments } from '../testing/held-documents';
import { ImagePlacer } from './image-placer';

const PLAIN: ImageFacts = { even: [], grey: false, seams: NO_SEAMS };
const FACTS: Readonly<Record<string, ImageFacts>> = {
  bumps: { ...PLAIN, normals: { green: 'down', certainty: 1 } },
  rise: { ...PLAIN, grey: true },
  print: PLAIN,
};
const image = (name: string): MaterialImage => ({
  name,
  asset: name,
  width: 4,
  height: 4,
  role: 'colour',
  wrapX: 'repeat',
  wrapY: 'repeat',
  filter: 'smooth',
  uvSet: 0,
});

describe('An image', () => {
  let held: HeldDocuments;
  let placer: ImagePlacer;
  let refused: string[];

  beforeEach(() => {
    held = new HeldDocuments();
    held.material.set(newMaterial('m'));
    refused = [];
    const shelf = {
      facts: signal(new Map(Object.entries(FACTS))),
      take: async ({ name }: File) => image(name),
      factsOf: async (asset: string) => FACTS[asset],
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        GraphView,
        GraphEditor,
        ImagePlacer,
        ...held.providers,
        { provide: ImageShelf, useValue: shelf },
        { provide: FunctionShelf, useValue: { texts: () => new Map(), library, idOf: () => undefined } },
      ],
    });
    const work = TestBed.inject(GraphEditor);
    work.refusals.subscribe((words) => refused.push(words));
    placer = TestBed.inject(ImagePlacer);
  });

  const drop = (name: string): Promise<void> => placer.drop([new File([], name)], { x: 0, y: 0 }, { node: 'lambert', inlet: 'normal' });
  const feeding = (): string | undefined => {
    const material = held.material()!;
    const from = material.surface.ribbons['lambert.normal']?.from;
    return from === undefined ? undefined : material.surface.nodes[from]?.kind;
  };
  const role = (): string | undefined => Object.values(held.material()!.images)[0]?.role;

  it('that is a normal map goes into a normal through its reader, the right way up', async () => {
    await drop('bumps');
    expect([feeding(), role()]).toEqual(['normalFromMap', 'data']);
    const reader = Object.values(held.material()!.surface.nodes).find(({ kind }) => kind === 'normalFromMap');
    expect(reader?.features).toEqual(['greenDown']);
    expect(compileMaterial(held.material()!).problems).toEqual([]);
  });

  it('that is a height goes in by its slopes, and what is neither stands beside, in words', async () => {
    await drop('rise');
    expect([feeding(), role(), refused]).toEqual(['normalFromHeightMap', 'data', []]);
    await drop('print');
    expect(feeding()).toBe('normalFromHeightMap');
    expect(refused[0]).toContain('looks neither like a normal map nor like a height');
  });

  it('from the shelf is read as its name or its pixels say', async () => {
    const asset = (name: string): Parameters<ImagePlacer['adopt']>[1] => ({
      sha256: name,
      name,
      type: 'image/png',
      size: 1,
      width: 4,
      height: 4,
      tags: [],
      updatedAt: '',
    });
    for (const [name, wanted] of [
      ['bumps', 'data'],
      ['tern_rough.png', 'data'],
      ['print', 'colour'],
    ] as const) {
      held.material.set(newMaterial('m'));
      await placer.adopt({ node: 'colour' }, asset(name));
      expect(role()).withContext(name).toBe(wanted);
    }
  });
});
