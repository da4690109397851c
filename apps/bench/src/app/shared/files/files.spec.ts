import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { BrelvinDocument } from '@brelvin/contract';
import { newFunction, newMaterial, newRig, newSet, writeBrelvinFile } from '@brelvin/core';
import { App } from '../../app';
import { AssetApi } from '../api/asset-api';
import { DocumentApi } from '../api/document-api';
import { Notices } from '../notices/notices';
import { FileDrops } from './file-drops';
import { FileTaker } from './file-taker';
import { sortedFiles } from './sorted-files';

const fileOf = (name: string, content: BlobPart = ''): File => new File([content], name);

describe('Files by their names', () => {
  it('are sorted into what they may become; what lies beside a mesh belongs to it', () => {
    const names = (files: readonly File[]): string[] => files.map(({ name }) => name);
    const { documents, environments, images, others } = sortedFiles(
      ['a.brelvin', 'b.HDR', 'c.jpeg', 'd.zip', 'e.txt', 'f.bin'].map((name) => fileOf(name)),
    );
    expect([documents, environments, images, others].map(names)).toEqual([
      ['a.brelvin'],
      ['b.HDR'],
      ['c.jpeg', 'd.zip'],
      ['e.txt', 'f.bin'],
    ]);
    const withMesh = sortedFiles(['kite.gltf', 'kite.bin', 'wood.png'].map((name) => fileOf(name)));
    expect([withMesh.meshes, withMesh.images, withMesh.others].map(names)).toEqual([['kite.gltf'], [], []]);
  });
});

describe('Files that are dropped where nothing asks for them', () => {
  it('never take the page’s place: the page that is shown takes them, or they are refused in words', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideRouter([])] });
    const fixture = TestBed.createComponent(App);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const drop = async (type: string): Promise<DragEvent> => {
      const dataTransfer = new DataTransfer();
      dataTransfer.items.add(fileOf('notes.txt', 'x'));
      const event = new DragEvent(type, { dataTransfer, bubbles: true, cancelable: true });
      document.body.dispatchEvent(event);
      await new Promise((resolve) => setTimeout(resolve));
      return event;
    };
    expect((await drop('dragover')).defaultPrevented).toBeTrue();
    expect((await drop('drop')).defaultPrevented).toBeTrue();
    expect(TestBed.inject(Notices).shown()[0]?.words).toContain('“notes.txt” was not imported. Brelvin imports images');
    const taken: string[] = [];
    const end = TestBed.inject(FileDrops).takeWith((files) => taken.push(...files.map(({ name }) => name)));
    await drop('drop');
    end();
    expect(taken).toEqual(['notes.txt']);
    fixture.destroy();
  });
});

describe('A Brelvin file', () => {
  let created: Map<string, BrelvinDocument>;
  let sent: string[];
  let taker: FileTaker;
  let failing: Error | undefined;

  beforeEach(() => {
    created = new Map();
    sent = [];
    failing = undefined;
    const documents: Partial<DocumentApi> = {
      create: async (id, document) => {
        created.set(id, document);
        return { id, step: 0, document };
      },
      functions: async () => ({
        functions: [...created].flatMap(([id, document]) => (document.format === 'brelvin-function' ? [{ id, step: 0, ...document }] : [])),
      }),
    };
    const assets: Partial<AssetApi> = {
      send: async (file, { name, type }, { progress }) => {
        if (failing) throw failing;
        progress(1);
        sent.push(`${name} ${type} ${file.size}`);
        return {} as never;
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        { provide: DocumentApi, useValue: documents },
        { provide: AssetApi, useValue: assets },
      ],
    });
    taker = TestBed.inject(FileTaker);
  });

  const said = (): string => TestBed.inject(Notices).shown().at(-1)?.words ?? '';
  const image = {
    asset: 'a'.repeat(64),
    width: 1,
    height: 1,
    role: 'colour',
    wrapX: 'repeat',
    wrapY: 'repeat',
    filter: 'smooth',
    uvSet: 0,
  } as const;
  const material = { ...newMaterial('Silk', { set: 's', rig: 'r' }), images: { i: { ...image, name: 'Weave' } } };
  const whole = writeBrelvinFile({
    document: material,
    beside: new Map<string, BrelvinDocument>([
      ['s', { ...newSet('Quay'), partRules: { x: { order: 0, pattern: '*', material: 'w', values: {} } } }],
      ['r', newRig('Dusk')],
      ['w', newMaterial('Worn')],
    ]),
    assets: new Map([['a'.repeat(64), { bytes: new Uint8Array(5), type: 'image/png' }]]),
    functions: new Map([['soft', 'float soft(float x) { return x; }']]),
  });

  it('brings all that is seen, under ids of its own, says what came and where, and offers to open it', async () => {
    const taken = await taker.take(fileOf('silk.brelvin', whole));
    expect(sent).toEqual(['Weave image/png 5']);
    const byName = new Map([...created].map(([id, document]) => [document.name, { id, document }]));
    expect([...byName.keys()].sort()).toEqual(['Dusk', 'Quay', 'Silk', 'Worn', 'soft']);
    const silk = byName.get('Silk')!.document as typeof material;
    expect(silk.seenIn).toEqual({ set: byName.get('Quay')!.id, rig: byName.get('Dusk')!.id });
    const quay = byName.get('Quay')!.document as ReturnType<typeof newSet>;
    expect(Object.values(quay.partRules)[0]?.material).toBe(byName.get('Worn')!.id);
    expect(said()).toBe('The material “Silk” is in the Library, under Materials, with 1 material, 1 set, 1 light rig, 1 file, 1 function.');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    TestBed.inject(Notices).shown().at(-1)?.actions[0]?.run();
    expect(navigate.calls.mostRecent().args[0]).toEqual(['/bench', taken!.id]);
  });

  it('leaves a function that is here as it is, and says so where it is another', async () => {
    created.set('f', newFunction('soft', 'float soft(float x) { return x * 2.0; }'));
    await taker.take(fileOf('silk.brelvin', whole));
    expect([...created.values()].filter(({ format }) => format === 'brelvin-function').length).toBe(1);
    expect(said()).toContain('The Library has “soft” already, written otherwise');
  });

  it('brings nothing where something is wrong with it, and says what', async () => {
    failing = new Error('The file was damaged on its way.');
    expect(await taker.take(fileOf('silk.brelvin', whole))).toBeUndefined();
    expect([created.size, said()]).toEqual([0, '“silk.brelvin” was not imported. The file was damaged on its way.']);
    await taker.take(fileOf('other.brelvin', '{"format": "other"}'));
    expect(said()).toContain('“other.brelvin” was not imported.');
    expect(created.size).toBe(0);
  });
});
