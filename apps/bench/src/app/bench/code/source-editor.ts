import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { LONGEST_NAME, LONGEST_SOURCE, type LibraryFunction, type Material, type MaterialCode } from '@brelvin/contract';
import {
  CODE_PATH,
  fieldAsCode,
  isWhole,
  libraryText,
  newCodedField,
  nameInText,
  setMaterialCode,
  takeNameOver,
  VERTICES_PATH,
  withEdits,
  withVertexStage,
  type Diagnostic,
  type EmittedSource,
  type GraphAsCode,
  type Origin,
  type Range,
  type TargetName,
  type TextRole,
  isWgsl,
} from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { FunctionShelf } from '../../shared/functions/function-shelf';
import type { ProgramTexts } from '../compile/compile.worker';
import { Compiler } from '../compile/compiler';
import { DocumentStore } from '../documents/document-store';
import { OpenFields } from '../documents/open-fields';
import { GraphEditor } from '../editors/graph-editor';
import { FunctionBinding } from './function-binding';

/** One of the texts that the code tab can show. */
export type Sheet =
  | { readonly kind: 'pixels' | 'vertices' | 'graph' | 'pixel program' | 'vertex program' | 'field graph' }
  | { readonly kind: 'function' | 'field'; readonly id: string; readonly name: string }
  | { readonly kind: 'library'; readonly path: string };

/** Milliseconds without a key after which what is written goes into the document. */
const PAUSE_MS = 140;
/** Milliseconds without a key after which a function is called in the Library as in its text. */
const NAME_PAUSE_MS = 1500;
/** Milliseconds after which what is written is another step to undo. */
const STEP_MS = 1000;

/** Whether it stands there because it was asked for, and can be closed. */
export function isOpened({ kind }: Sheet): boolean {
  return kind === 'function' || kind === 'field' || kind === 'library';
}

export function sheetKey(sheet: Sheet): string {
  if (sheet.kind === 'function' || sheet.kind === 'field') return `${sheet.kind} ${sheet.id}`;
  return sheet.kind === 'library' ? `library ${sheet.path}` : sheet.kind;
}

/** What is read and written in the code tab: the material's texts, its graph as code, functions of the Library, fields. */
@Injectable()
export class SourceEditor {
  private readonly api = inject(DocumentApi);
  private readonly workbench = inject(Workbench);
  private readonly shelf = inject(FunctionShelf);
  private readonly compiler = inject(Compiler);
  private readonly binding = inject(FunctionBinding);
  private readonly graph = inject(GraphEditor);

  private readonly store = inject(DocumentStore);
  private readonly openFields = inject(OpenFields);
  private readonly fields = this.openFields.fields;
  private readonly wanted = signal<Sheet>({ kind: 'pixels' });
  private readonly opened = signal<readonly Sheet[]>([]);
  /** A kind of node whose code is to be shown, once the tab is there. */
  readonly wantedKind = signal<string | undefined>(undefined);
  /** A place to be shown, in the sheet that is shown. */
  readonly revealed = signal<Range | undefined>(undefined);
  /** What the compiler says of the material on the Bench. */
  readonly said = signal<readonly Diagnostic[]>([]);
  /** What is wrong with the function or field that was read last. */
  private readonly documentSaid = signal<{ readonly id: string; readonly text: string; readonly found: readonly Diagnostic[] } | undefined>(
    undefined,
  );
  /** In which language a graph is read. */
  readonly reading = signal<TargetName>('glsl');
  private readonly programs = signal<ProgramTexts | undefined>(undefined);
  private readonly asCode = signal<GraphAsCode | undefined>(undefined);
  /** Why the graph cannot be written as code. */
  readonly noCode = signal('');
  private timer?: ReturnType<typeof setTimeout>;
  private nameTimer?: ReturnType<typeof setTimeout>;
  /** The function whose name may have changed in its text. */
  private renaming?: string;
  private waiting?: { readonly sheet: Sheet; readonly text: string };
  /** What is being written, until it is in a document. */
  private readonly draft = signal<{ readonly key: string; readonly text: string } | undefined>(undefined);
  private gesture = newId();
  private lastWritten = -Infinity;

  readonly code = computed(() => this.graph.material().code);
  readonly sheets = computed((): readonly Sheet[] => {
    const code = this.code();
    const own: Sheet[] = code
      ? [{ kind: 'pixels' }, ...(code.vertices === undefined ? [] : [{ kind: 'vertices' } as const])]
      : [{ kind: 'graph' }, { kind: 'pixel program' }, { kind: 'vertex program' }];
    const field: Sheet[] = this.graph.field() === undefined ? [] : [{ kind: 'field graph' }];
    return [...own, ...field, ...this.opened().map((sheet) => this.named(sheet))];
  });
  readonly sheet = computed((): Sheet => {
    const key = sheetKey(this.wanted());
    const [first] = this.sheets();
    return this.sheets().find((each) => sheetKey(each) === key) ?? first ?? { kind: 'pixels' };
  });
  /** The function of the Library that is shown, by its id. */
  readonly shownFunction = computed(() => {
    const sheet = this.sheet();
    return sheet.kind === 'function' ? sheet.id : undefined;
  });
  readonly role = computed((): TextRole => {
    const sheet = this.sheet();
    if (sheet.kind === 'function') return { role: 'function', name: sheet.name };
    if (sheet.kind === 'library') return { role: 'library', path: sheet.path };
    if (sheet.kind === 'field' || sheet.kind === 'field graph') return { role: 'field' };
    return { role: sheet.kind === 'vertices' ? 'vertices' : 'material' };
  });
  readonly readOnly = computed(() => !['pixels', 'vertices', 'function', 'field'].includes(this.sheet().kind));
  private readonly stored = computed(() => this.textOf(this.sheet()));
  readonly text = computed(() => {
    const draft = this.draft();
    return draft && draft.key === sheetKey(this.sheet()) ? draft.text : this.stored();
  });
  /** What is wrong with the text that is shown. */
  readonly diagnostics = computed((): readonly Diagnostic[] => {
    const sheet = this.sheet();
    if (sheet.kind !== 'function' && sheet.kind !== 'field') return this.saidOf(sheet);
    const found = this.documentSaid();
    return found?.id === sheet.id && found.text === this.text() ? found.found : [];
  });
  /** Whether there is more than can be kept; nothing of it is kept until it is shorter. */
  readonly tooLong = computed(() => this.text().length > LONGEST_SOURCE);
  readonly whole = computed(() => {
    const code = this.code();
    return code !== undefined && isWhole(code);
  });
  /** The field whose graph is seen, as code. */
  private readonly fieldCode = computed((): EmittedSource | undefined => {
    const field = this.openFields.drawn(this.graph.field());
    const made = field && fieldAsCode(field);
    return made && 'source' in made ? made.source : undefined;
  });
  /** What is shown of a graph. */
  private readonly madeOfGraph = computed((): EmittedSource | undefined => {
    switch (this.sheet().kind) {
      case 'graph':
        return this.asCode()?.source;
      case 'field graph':
        return this.fieldCode();
      case 'pixel program':
        return this.programs()?.fragment;
      case 'vertex program':
        return this.programs()?.vertex;
      default:
        return undefined;
    }
  });
  /** Whether a graph is read, in this language or the other. */
  readonly isOfGraph = computed(() => ['graph', 'pixel program', 'vertex program'].includes(this.sheet().kind));
  /** The language that the shown text can be turned into. */
  readonly otherLanguage = computed(() => (isWgsl(this.text()) ? 'GLSL' : 'WGSL'));
  /** Which node each line of the shown text was made of, where it was made of a graph. */
  readonly origins = computed(() => this.madeOfGraph()?.lines ?? []);
  /** The material that the graph as code makes. */
  readonly made = computed(() => this.asCode()?.material);
  /** Lines of the nodes that are chosen on the graph. */
  readonly markedLines = computed((): readonly number[] => {
    const chosen = this.graph.chosen();
    const path = this.graph
      .trail()
      .map(({ node }) => `${node}/`)
      .join('');
    return this.origins().flatMap((origin, index) => (origin && this.isOf(origin.path, chosen, path) ? [index + 1] : []));
  });

  constructor() {
    this.store.addDrafts(() => this.flush());
    effect(() => {
      const [sheet, material] = [this.sheet(), this.graph.material()];
      this.shelf.texts();
      const language = this.reading();
      if (material.code || !this.isOfGraph()) return;
      untracked(() => void (sheet.kind === 'graph' ? this.readGraph(language) : this.readPrograms(language)));
    });
    effect(() => {
      const [sheet, text] = [this.sheet(), this.stored()];
      this.shelf.texts();
      if (sheet.kind === 'function' || sheet.kind === 'field') untracked(() => void this.readDocument(sheet, text));
    });
  }

  private saidOf({ kind }: Sheet): readonly Diagnostic[] {
    const path = kind === 'pixels' ? CODE_PATH : kind === 'vertices' ? VERTICES_PATH : undefined;
    return path === undefined ? [] : this.said().filter((each) => each.path === path);
  }

  private isOf(path: string, chosen: ReadonlySet<string>, inside: string): boolean {
    const own = path.startsWith(inside) ? path.slice(inside.length) : undefined;
    return own !== undefined && chosen.has(own.split('/')[0] ?? '');
  }

  /** A document's sheet under the name that it has now. */
  private named(sheet: Sheet): Sheet {
    if (sheet.kind !== 'function' && sheet.kind !== 'field') return sheet;
    const document = sheet.kind === 'field' ? this.fields().get(sheet.id) : this.functionOf(sheet.id);
    return document ? { ...sheet, name: document.name } : sheet;
  }

  private functionOf(id: string): LibraryFunction | undefined {
    // Reading the shelf makes computations follow what is written.
    this.shelf.texts();
    const document = this.workbench.document(id);
    return document?.format === 'brelvin-function' ? document : undefined;
  }

  private textOf(sheet: Sheet): string {
    switch (sheet.kind) {
      case 'pixels':
        return this.code()?.text ?? '';
      case 'vertices':
        return this.code()?.vertices ?? '';
      case 'graph':
      case 'field graph':
      case 'pixel program':
      case 'vertex program':
        return this.madeOfGraph()?.text ?? '';
      case 'function':
        return this.functionOf(sheet.id)?.text ?? '';
      case 'field':
        return this.fields().get(sheet.id)?.text ?? '';
      case 'library':
        return libraryText(sheet.path) ?? '';
    }
  }

  show(sheet: Sheet, range?: Range): void {
    this.flush();
    this.takeNameOver();
    const key = sheetKey(sheet);
    if (isOpened(sheet) && !this.opened().some((each) => sheetKey(each) === key)) this.opened.update((all) => [...all, sheet]);
    this.wanted.set(sheet);
    // A new object, also for the same place again.
    this.revealed.set(range && { ...range });
  }

  close(sheet: Sheet): void {
    this.flush();
    this.takeNameOver();
    this.opened.update((all) => all.filter((each) => sheetKey(each) !== sheetKey(sheet)));
  }

  /** Another material is on the Bench. */
  clear(): void {
    this.opened.set([]);
    this.wanted.set({ kind: 'pixels' });
    this.said.set([]);
    this.asCode.set(undefined);
    this.programs.set(undefined);
    this.draft.set(undefined);
    this.waiting = undefined;
  }

  /** Shows where something is written. */
  async showPlace({ path, range }: Origin): Promise<void> {
    if (path === CODE_PATH) this.show({ kind: 'pixels' }, range);
    else if (path === VERTICES_PATH) this.show({ kind: 'vertices' }, range);
    else if (path.startsWith('function ')) await this.showFunction(path.slice('function '.length), range);
    else if (libraryText(path) !== undefined) this.show({ kind: 'library', path }, range);
  }

  /** @throws ApiFailure */
  async showFunction(name: string, range?: Range): Promise<void> {
    const id = this.shelf.idOf(name);
    if (id === undefined) return;
    await this.binding.load(id);
    this.show({ kind: 'function', id, name }, range);
  }

  /** @throws ApiFailure */
  async showField(id: string, range?: Range): Promise<void> {
    const { name } = await this.workbench.load(id);
    this.show({ kind: 'field', id, name }, range);
  }

  /** Takes what is typed; it is in the document a moment later. */
  write(text: string): void {
    const sheet = this.sheet();
    if (this.readOnly()) return;
    this.draft.set({ key: sheetKey(sheet), text });
    this.waiting = { sheet, text };
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.flush(), PAUSE_MS);
  }

  /** Puts what is typed into its document now. */
  flush(): void {
    clearTimeout(this.timer);
    const { waiting } = this;
    this.waiting = undefined;
    if (!waiting) return;
    const { sheet, text } = waiting;
    if (text.length > LONGEST_SOURCE) return;
    const now = performance.now();
    if (now - this.lastWritten > STEP_MS) this.gesture = newId();
    this.lastWritten = now;
    this.put(sheet, text);
    this.draft.set(undefined);
  }

  private put(sheet: Sheet, text: string): void {
    if (sheet.kind === 'function' || sheet.kind === 'field') {
      this.workbench.edit(
        sheet.id,
        { label: `Write ${sheet.name}`, changes: [{ path: ['text'], value: text }] },
        `${this.gesture} ${sheet.id}`,
      );
      if (sheet.kind === 'field') return;
      this.renaming = sheet.id;
      clearTimeout(this.nameTimer);
      this.nameTimer = setTimeout(() => this.takeNameOver(), NAME_PAUSE_MS);
      return;
    }
    const material = this.material();
    if (!material?.code) return;
    const code: MaterialCode = sheet.kind === 'vertices' ? { ...material.code, vertices: text } : { ...material.code, text };
    this.graph.change(setMaterialCode(material, code), this.gesture);
  }

  /** The function that was written is called in the Library as in its text, where that name is free. */
  private takeNameOver(): void {
    clearTimeout(this.nameTimer);
    const { renaming: id } = this;
    this.renaming = undefined;
    const document = id === undefined ? undefined : this.functionOf(id);
    if (id === undefined || !document) return;
    const called = nameInText(this.shelf.library(), document.name);
    if (called === undefined || called === document.name || (this.shelf.idOf(called) ?? id) !== id) return;
    this.workbench.edit(id, takeNameOver(document, called), `${this.gesture} ${id}`);
  }

  private material(): Material | undefined {
    return this.store.material();
  }

  /** The texts beside the one that is shown in which something is wrong, with that. */
  readonly elsewhere = computed((): readonly { readonly sheet: Sheet; readonly diagnostics: readonly Diagnostic[] }[] =>
    this.sheets()
      .filter((sheet) => sheetKey(sheet) !== sheetKey(this.sheet()))
      .map((sheet) => ({ sheet, diagnostics: this.saidOf(sheet) }))
      .filter(({ diagnostics }) => diagnostics.length > 0),
  );

  /** Shows the first thing that is wrong in another text. @returns whether there is one */
  showElsewhere(): boolean {
    const [found] = this.elsewhere();
    const [first] = [...(found?.diagnostics ?? [])].sort((a, b) => a.range.from - b.range.from);
    if (found && first) this.show(found.sheet, { from: first.range.from, to: first.range.from });
    return found !== undefined;
  }

  /** Mends the first thing in another text that can be mended, and shows it. @returns whether there is one */
  mendElsewhere(): boolean {
    for (const { sheet, diagnostics } of this.elsewhere()) {
      const found = diagnostics.find(({ mends }) => mends && mends.length > 0);
      const [mend] = found?.mends ?? [];
      if (!found || !mend) continue;
      this.show(sheet, { from: found.range.from, to: found.range.from });
      this.put(sheet, withEdits(this.textOf(sheet), mend.edits));
      return true;
    }
    return false;
  }

  /** Writes the text that is shown in the other language, in one step. */
  async translate(): Promise<void> {
    this.flush();
    const sheet = this.sheet();
    const material = this.material();
    const document = sheet.kind === 'function' || sheet.kind === 'field' ? sheet : undefined;
    const code = document ? { text: this.text() } : material?.code;
    if (!code) return;
    const [text, key] = [this.text(), sheetKey(sheet)];
    const made = await this.compiler.assist.translate({
      ...code,
      ...(document?.kind === 'function' ? { functionName: document.name } : { field: document?.kind === 'field' }),
    });
    // Somebody went on writing meanwhile.
    if (this.text() !== text || sheetKey(this.sheet()) !== key) return;
    if ('problem' in made) this.workbench.tell(made.problem);
    else if (document)
      this.workbench.edit(document.id, {
        label: `Write ${document.name} in ${made.language}`,
        changes: [{ path: ['text'], value: made.text }],
      });
    else if (material?.code)
      this.graph.change(setMaterialCode(material, { text: made.text, vertices: made.vertices }, `Write the code in ${made.language}`));
  }

  /** Begins a vertex stage of the material's own, from which the pixel stage gets what it reads. */
  addVertices(): void {
    this.flush();
    const material = this.material();
    if (!material?.code) return;
    const code = withVertexStage(material.code);
    if (typeof code === 'string') {
      this.workbench.tell(code);
      return;
    }
    this.graph.change(setMaterialCode(material, code, 'Add a vertex stage'));
    this.show({ kind: 'vertices' });
  }

  /** Vertices are placed as usual again. */
  removeVertices(): void {
    this.flush();
    const material = this.material();
    if (!material?.code) return;
    this.graph.change(setMaterialCode(material, { text: material.code.text }, 'Take the vertex stage away'));
    this.show({ kind: 'pixels' });
  }

  /** Keeps the material that the graph as code makes, as another one. @returns its id @throws ApiFailure */
  async keepMade(): Promise<string | undefined> {
    const made = this.made();
    if (!made) return undefined;
    const id = newId();
    await this.api.create(id, { ...made, name: `${made.name} in code`.slice(0, LONGEST_NAME) });
    await this.workbench.flush();
    return id;
  }

  /** Keeps the field whose graph is seen as another one, that is written as code. @returns its name @throws ApiFailure */
  async keepFieldAsCode(): Promise<string | undefined> {
    const [field, code] = [this.openFields.drawn(this.graph.field()), this.fieldCode()];
    if (!field || !code) return undefined;
    const name = `${field.name} in code`.slice(0, LONGEST_NAME);
    await this.api.create(newId(), newCodedField(name, code.text));
    return name;
  }

  private async readGraph(language: TargetName): Promise<void> {
    const found = await this.asked((id) => this.compiler.graphCode(id, language));
    if (!found || language !== this.reading()) return;
    if ('material' in found) this.asCode.set(found);
    this.noCode.set('material' in found ? '' : (found.problems[0]?.message ?? ''));
  }

  private async readPrograms(language: TargetName): Promise<void> {
    const found = await this.asked((id) => this.compiler.programTexts(id, language));
    if (!found || language !== this.reading()) return;
    if ('vertex' in found) this.programs.set(found);
    this.noCode.set('vertex' in found ? '' : (found.problems[0]?.message ?? ''));
  }

  /** What the compiler answers about the material on the Bench; its own failure as a problem, nothing where another one came. */
  private async asked<T>(
    question: (id: string) => Promise<T>,
  ): Promise<T | { readonly problems: readonly { readonly message: string }[] } | undefined> {
    const id = this.store.materialId();
    if (id === undefined) return undefined;
    const found = await question(id).catch((error: unknown) => ({
      problems: [{ message: error instanceof Error ? error.message : String(error) }],
    }));
    return id === this.store.materialId() ? found : undefined;
  }

  private async readDocument({ kind, id, name }: Sheet & { readonly kind: 'function' | 'field' }, text: string): Promise<void> {
    const found = await (kind === 'field' ? this.compiler.fieldDiagnostics(text) : this.compiler.functionDiagnostics(name, text));
    this.documentSaid.set({ id, text, found });
  }
}
