import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { StoredFunction } from '@brelvin/contract';
import { functionKindId, newFunction } from '@brelvin/core';
import { DocumentApi } from '../api/document-api';
import { FunctionShelf } from './function-shelf';

const TIDE: StoredFunction = { id: 't', step: 0, name: 'tide', text: 'float tide(float x) { return x; }', formerNames: ['ebb'] };

describe('FunctionShelf', () => {
  let stored: StoredFunction[];
  let asked: number;
  let shelf: FunctionShelf;

  beforeEach(() => {
    stored = [TIDE];
    asked = 0;
    const api = {
      functions: async () => {
        asked++;
        return { functions: stored };
      },
      create: async (id: string, document: ReturnType<typeof newFunction>) => {
        stored = [...stored, { id, step: 0, name: document.name, text: document.text, formerNames: [] }];
      },
    };
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), { provide: DocumentApi, useValue: api }] });
    shelf = TestBed.inject(FunctionShelf);
  });

  it('reads the shelf once, and has its functions as kinds of nodes', async () => {
    await Promise.all([shelf.ready(), shelf.ready()]);
    expect(asked).toBe(1);
    expect(shelf.library().kinds.has(functionKindId('tide'))).toBeTrue();
    expect(shelf.idOf('ebb')).toBe('t');
  });

  it('shows what is being written over what is stored, and keeps it when it is let go', async () => {
    await shelf.ready();
    shelf.write('t', newFunction('tide', 'float tide(float x) { return x * 2.0; }'));
    expect(shelf.texts().get('tide')?.text).toContain('2.0');
    shelf.write('t', undefined);
    expect(shelf.texts().get('tide')?.text).toContain('2.0');
  });

  it('gives new functions a name of their own', async () => {
    await shelf.ready();
    expect(shelf.freeName('tide')).toBe('tide2');
    await shelf.create('swell');
    expect(shelf.names()).toEqual(['swell', 'tide']);
  });

  it('tries again after it could not be read', async () => {
    const api = TestBed.inject(DocumentApi) as { functions: () => Promise<{ functions: StoredFunction[] }> };
    const { functions } = api;
    api.functions = () => Promise.reject(new Error('away'));
    await expectAsync(shelf.ready()).toBeRejected();
    api.functions = functions;
    await shelf.ready();
    expect(shelf.names()).toEqual(['tide']);
  });
});
