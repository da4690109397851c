import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { newCodeMaterial } from '@brelvin/core';
import { Subject } from 'rxjs';
import { DocumentApi } from '../../shared/api/document-api';
import { Workbench } from '../../shared/documents/workbench';
import { FunctionShelf } from '../../shared/functions/function-shelf';
import { Compiler } from '../compile/compiler';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { HeldDocuments } from '../testing/held-documents';
import { SourceEditor } from './source-editor';
import { FunctionBinding } from './function-binding';

const TEXT = 'uniform float glow;\nvec4 paint(Surface s) { return vec4(glow); }\n';

describe('SourceEditor', () => {
  let held: HeldDocuments;
  let editor: SourceEditor;

  beforeEach(() => {
    jasmine.clock().install();
    held = new HeldDocuments();
    held.material.set(newCodeMaterial('m', {}, { text: TEXT }));
    const bench = { document: () => held.material(), changes: new Subject(), edit: () => undefined, flush: async () => undefined };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        GraphView,
        GraphEditor,
        SourceEditor,
        ...held.providers,
        { provide: Workbench, useValue: bench },
        { provide: DocumentApi, useValue: {} },
        { provide: FunctionShelf, useValue: { texts: () => new Map(), library: () => ({ kinds: new Map() }), idOf: () => undefined } },
        { provide: Compiler, useValue: { graphCode: async () => ({ problems: [] }), functionDiagnostics: async () => [] } },
        { provide: FunctionBinding, useValue: { load: async () => undefined } },
      ],
    });
    editor = TestBed.inject(SourceEditor);
  });

  afterEach(() => jasmine.clock().uninstall());

  it('puts what is typed into the document after a moment, at once into what is shown', () => {
    editor.write(`${TEXT}// a`);
    expect([editor.text(), held.edits.length]).toEqual([`${TEXT}// a`, 0]);
    editor.write(`${TEXT}// ab`);
    jasmine.clock().tick(200);
    expect(held.edits.length).toBe(1);
    expect(held.material()!.code?.text).toBe(`${TEXT}// ab`);
    expect(editor.text()).toBe(`${TEXT}// ab`);
  });

  it('keeps nothing of a text that is too long, and says so', () => {
    editor.write('x'.repeat(200_001));
    jasmine.clock().tick(200);
    expect([editor.tooLong(), held.edits.length]).toEqual([true, 0]);
    editor.write(TEXT);
    expect(editor.tooLong()).toBeFalse();
  });

  it('begins and takes away a vertex stage', () => {
    editor.addVertices();
    expect(held.material()!.code?.vertices).toContain('void main()');
    expect(editor.sheets().map(({ kind }) => kind)).toEqual(['pixels', 'vertices']);
    expect(editor.sheet().kind).toBe('vertices');
    editor.removeVertices();
    expect(held.material()!.code).toEqual({ text: TEXT });
  });

  it('opens files of the library to be read, and only read', () => {
    editor.show({ kind: 'library', path: 'light/rim.glsl' }, { from: 3, to: 5 });
    expect(editor.text()).toContain('Lit rim(');
    expect([editor.readOnly(), editor.revealed()]).toEqual([true, { from: 3, to: 5 }]);
    editor.write('gone');
    jasmine.clock().tick(200);
    expect(held.edits.length).toBe(0);
    editor.close({ kind: 'library', path: 'light/rim.glsl' });
    expect(editor.sheet().kind).toBe('pixels');
  });
});
