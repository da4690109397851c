import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { BrelvinDocument } from '@brelvin/contract';
import { newCodeMaterial, newFunction, type FunctionTexts } from '@brelvin/core';
import { Subject } from 'rxjs';
import { ApiFailure } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { FunctionShelf } from '../../shared/functions/function-shelf';
import { Compiler } from '../compile/compiler';
import { FunctionBinding } from './function-binding';

const needsDusk = newCodeMaterial('m', {}, { text: 'import dusk;\nvec4 paint(Surface s) { return vec4(1.0); }' });

describe('FunctionBinding', () => {
  const changes = new Subject<{ id: string; document: BrelvinDocument }>();
  const texts = signal<FunctionTexts>(new Map());
  const loaded: string[] = [];
  const told: string[] = [];
  const written: [string, string | undefined][] = [];
  const handed: FunctionTexts[] = [];
  let needed: (id: string) => ReadonlySet<string> = () => new Set();
  let answer: () => Promise<void> = async () => undefined;
  let link: FunctionBinding;

  beforeEach(() => {
    for (const each of [loaded, told, written, handed]) each.length = 0;
    answer = async () => undefined;
    texts.set(
      new Map([
        ['dusk', { text: 'import soft;\nvec3 dusk(vec3 c) { return soft(c); }' }],
        ['soft', { text: 'vec3 soft(vec3 c) { return c; }' }],
      ]),
    );
    const load = async (id: string): Promise<void> => {
      loaded.push(id);
      await answer();
    };
    const bench = {
      changes,
      load,
      tell: (words: string) => told.push(words),
      document: (id: string) => (id === 'm' ? needsDusk : undefined),
    };
    const shelf = {
      texts,
      ready: () => answer(),
      idOf: (name: string) => (texts().has(name) ? `id-${name}` : undefined),
      write: (id: string, document?: { text: string }) => written.push([id, document?.text]),
    };
    const setFunctions = (all: FunctionTexts, of: typeof needed): void => {
      handed.push(all);
      needed = of;
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        FunctionBinding,
        { provide: Workbench, useValue: bench },
        { provide: FunctionShelf, useValue: shelf },
        { provide: Compiler, useValue: { setFunctions } },
      ],
    });
    link = TestBed.inject(FunctionBinding);
  });

  it('opens what an open material needs, and what that imports, each once', async () => {
    await link.open(needsDusk);
    await link.open(needsDusk);
    expect(loaded).toEqual(['id-dusk', 'id-soft']);
  });

  it('opens what comes to be needed while a material is edited', async () => {
    changes.next({ id: 'm', document: needsDusk });
    await new Promise((resolve) => setTimeout(resolve));
    expect(loaded).toEqual(['id-dusk', 'id-soft']);
  });

  it('puts a function that is edited on the shelf at once, and hands the shelf to the compiler', () => {
    changes.next({ id: 'id-soft', document: newFunction('soft', 'vec3 soft(vec3 c) { return c * 0.5; }') });
    expect(written).toEqual([['id-soft', 'vec3 soft(vec3 c) { return c * 0.5; }']]);
    TestBed.tick();
    expect(handed.at(-1)).toBe(texts());
    expect([...needed('m')].sort()).toEqual(['dusk', 'soft']);
    expect(needed('unknown').size).toBe(0);
  });

  it('tries again to open what could not be read', async () => {
    answer = () => Promise.reject(new ApiFailure(503, 'away', 'the server does not answer'));
    await link.load('id-dusk');
    answer = async () => undefined;
    await link.load('id-dusk');
    await link.load('id-dusk');
    expect(loaded).toEqual(['id-dusk', 'id-dusk']);
  });

  it('goes on without the Library when it cannot be read, and says so', async () => {
    answer = () => Promise.reject(new ApiFailure(503, 'away', 'the server does not answer'));
    await link.ready();
    expect(told).toEqual(['The functions of the Library could not be read: the server does not answer']);
    expect(handed.length).toBeGreaterThan(0);
  });

  it('takes what was being written off the shelf when the Bench is cleared', async () => {
    await link.open(needsDusk);
    link.letGo();
    expect(written).toEqual([
      ['id-dusk', undefined],
      ['id-soft', undefined],
    ]);
    await link.open(needsDusk);
    expect(loaded.length).toBe(4);
  });
});
