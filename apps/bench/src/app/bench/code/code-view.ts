import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import { Router } from '@angular/router';
import type { FunctionUser } from '@brelvin/contract';
import { forkOf, functionOfKind, libraryText, TARGET_NAMES, type Diagnostic } from '@brelvin/core';
import { UNSOUND_WORDS, Workbench } from '../../shared/documents/workbench';
import { DocumentApi } from '../../shared/api/document-api';
import { Choices } from '../../shared/controls/choices';
import { Tabs, type Tab } from '../../shared/controls/tabs';
import { FunctionShelf } from '../../shared/functions/function-shelf';
import { Icon } from '../../shared/icons/icon';
import { Compiler } from '../compile/compiler';
import { GraphEditor } from '../editors/graph-editor';
import { Steps } from '../documents/steps';
import { BenchPlaces } from '../layout/bench-places';
import { isOpened, SourceEditor, sheetKey, type Sheet } from './source-editor';
import { CodeEditor } from './editor/code-editor';
import { FunctionMenu } from './function-menu';
import { RenameField } from './rename-field';

/** The code tab: texts to read and write, what is wrong with them, and what can be done about it. */
@Component({
  selector: 'brelvin-code-view',
  imports: [Choices, CodeEditor, FunctionMenu, Icon, RenameField, Tabs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './code-view.css',
  host: { class: 'code-view' },
  templateUrl: './code-view.html',
})
export class CodeView {
  protected readonly source = inject(SourceEditor);
  private readonly graph = inject(GraphEditor);
  private readonly router = inject(Router);
  private readonly workbench = inject(Workbench);
  protected readonly places = inject(BenchPlaces);
  protected readonly steps = inject(Steps);
  private readonly shelf = inject(FunctionShelf);
  private readonly compiler = inject(Compiler);
  private readonly api = inject(DocumentApi);
  private readonly editor = viewChild(CodeEditor);
  protected readonly renaming = signal<{ readonly at: number; readonly name: string; readonly count: number } | undefined>(undefined);
  protected readonly renameProblem = signal('');
  protected readonly users = signal<readonly FunctionUser[] | undefined>(undefined);
  private readonly line = signal(1);

  protected readonly tabs = computed((): readonly Tab<string>[] =>
    this.source.sheets().map((sheet) => {
      const { words, help } = wordsOf(sheet);
      const wrong = this.source.elsewhere().find((each) => sheetKey(each.sheet) === sheetKey(sheet))?.diagnostics.length ?? 0;
      return {
        value: sheetKey(sheet),
        words: wrong > 0 ? `${words} ${wrong}` : words,
        help: wrong > 0 ? `${help}. ${wrong} problems` : help,
      };
    }),
  );
  protected readonly shown = computed(() => sheetKey(this.source.sheet()));
  protected readonly label = computed(() => `Code: ${wordsOf(this.source.sheet()).words}`);
  protected readonly problems = computed(() => [...this.source.diagnostics()].sort(worstFirst));
  protected readonly mendable = computed(() => [...this.problems(), ...this.elsewhere()].some(({ mends }) => mends && mends.length > 0));
  private readonly elsewhere = computed(() => this.source.elsewhere().flatMap(({ diagnostics }) => diagnostics));
  /** The node that the cursor's line was made of. */
  protected readonly nodeHere = computed(() => {
    const origins = this.source.origins();
    for (let index = Math.min(this.line(), origins.length) - 1; index >= 0; index--) {
      const path = origins[index]?.path;
      if (path !== undefined && this.graph.resolved().nodes.has(path)) return path;
      if (path !== undefined) return undefined;
    }
    return undefined;
  });
  /** The function at the cursor that can be forked: of the library file, or of the Library. */
  protected readonly forkable = computed(() => {
    const sheet = this.source.sheet();
    return sheet.kind === 'library' || sheet.kind === 'function';
  });

  constructor() {
    effect(() => {
      const kind = this.source.wantedKind();
      if (kind === undefined) return;
      this.source.wantedKind.set(undefined);
      untracked(() => void this.showNodeCode(kind));
    });
  }

  protected readonly languages = TARGET_NAMES.map((value) => ({
    value,
    words: value.toUpperCase(),
    help: `Read the graph in ${value.toUpperCase()}`,
  }));

  protected show(key: string): void {
    const sheet = this.source.sheets().find((each) => sheetKey(each) === key);
    if (sheet) this.source.show(sheet);
    this.users.set(undefined);
    this.renaming.set(undefined);
  }

  protected close(): void {
    this.source.close(this.source.sheet());
    this.users.set(undefined);
  }

  protected get closable(): boolean {
    return isOpened(this.source.sheet());
  }

  protected addVertices(): void {
    this.source.addVertices();
  }

  protected lineChosen(line: number): void {
    this.line.set(line);
  }

  protected mend(): void {
    this.editor()?.mend();
  }

  /** What is wrong in the text beside this, or the first thing here when nothing is. */
  protected goBeyond(wanted: 'next' | 'mend'): void {
    if (wanted === 'mend') this.source.mendElsewhere();
    else if (!this.source.showElsewhere()) this.editor()?.firstProblem();
  }

  protected go(problem: Diagnostic): void {
    this.source.show(this.source.sheet(), { from: problem.range.from, to: problem.range.from });
  }

  protected apply(problem: Diagnostic, index: number): void {
    const edits = problem.mends?.[index]?.edits;
    if (edits) this.editor()?.change(edits);
  }

  protected declaration(): void {
    void this.editor()?.askDeclaration();
  }

  protected askRename(): void {
    this.editor()?.askRename();
  }

  protected async startRename(at: number): Promise<void> {
    this.renameProblem.set('');
    const found = await this.compiler.assist.renamable(this.source.text(), this.source.role(), at);
    if (!found) this.workbench.tell('Put the cursor on a name that this text declares, to give it another one.');
    this.renaming.set(found && { at, name: found.name, count: found.places.length });
  }

  protected async rename(wanted: string): Promise<void> {
    const asked = this.renaming();
    if (!asked) return;
    const found = await this.compiler.assist.rename(this.source.text(), this.source.role(), asked.at, wanted);
    if ('problem' in found) {
      this.renameProblem.set(found.problem);
      return;
    }
    this.renaming.set(undefined);
    this.editor()?.change(found.edits);
    this.source.flush();
  }

  protected async copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(this.source.text());
      this.workbench.tell('The code is on the clipboard.');
    } catch {
      this.workbench.tell('The browser did not take the code. Choose it and press Ctrl C.');
    }
  }

  protected async begin(): Promise<void> {
    await this.making(() => this.shelf.create(this.shelf.freeName('myFunction')));
  }

  protected async openFunction(name: string): Promise<void> {
    await this.source.showFunction(name);
  }

  /** A copy of a function under another name, to be changed. */
  protected async fork(): Promise<void> {
    const text = this.source.text();
    const made = forkOf(text, text.split('\n').slice(0, this.line()).join('\n').length, (name) => this.shelf.freeName(name));
    if ('problem' in made) this.workbench.tell(made.problem);
    else await this.making(() => this.shelf.create(made.name, made.text));
  }

  protected tellUnsound(): void {
    this.workbench.tell(UNSOUND_WORDS);
  }

  /** A copy of the material that is written as the code of its graph. */
  protected async turnIntoCode(): Promise<void> {
    try {
      const id = await this.source.keepMade();
      if (id !== undefined) await this.router.navigate(['/bench', id]);
    } catch (error) {
      this.workbench.tell(error instanceof Error ? error.message : String(error));
    }
  }

  /** A copy of the field that is written as the code of its graph. */
  protected async turnFieldIntoCode(): Promise<void> {
    try {
      const name = await this.source.keepFieldAsCode();
      if (name !== undefined)
        this.workbench.tell(`“${name}” is in the Library, under Fields. Choose it where the mesh says which field it shows.`);
    } catch (error) {
      this.workbench.tell(error instanceof Error ? error.message : String(error));
    }
  }

  private async making(make: () => Promise<string>): Promise<void> {
    try {
      const id = await make();
      const name = this.shelf.names().find((each) => this.shelf.idOf(each) === id);
      if (name !== undefined) await this.source.showFunction(name);
    } catch (error) {
      this.workbench.tell(error instanceof Error ? error.message : String(error));
    }
  }

  protected async showUsers(): Promise<void> {
    const sheet = this.source.sheet();
    if (sheet.kind !== 'function') return;
    try {
      this.users.set(this.users() ? undefined : (await this.api.functionUsers(sheet.name)).users);
    } catch (error) {
      this.workbench.tell(error instanceof Error ? error.message : String(error));
    }
  }

  /** Shows the code of a node's function. */
  private async showNodeCode(kind: string): Promise<void> {
    const own = functionOfKind(kind);
    if (own !== undefined) {
      await this.source.showFunction(own);
      return;
    }
    const [overload] = this.shelf.library().kinds.get(kind)?.overloads ?? [];
    if (!overload || libraryText(overload.origin.path) === undefined) this.workbench.tell('This node has no code to be read.');
    else this.source.show({ kind: 'library', path: overload.origin.path }, overload.nameRange ?? overload.origin.range);
  }
}

function worstFirst(a: Diagnostic, b: Diagnostic): number {
  return Number(a.severity === 'warning') - Number(b.severity === 'warning') || a.range.from - b.range.from;
}

function wordsOf(sheet: Sheet): { words: string; help: string } {
  switch (sheet.kind) {
    case 'pixels':
      return { words: 'material', help: 'The material’s own text' };
    case 'vertices':
      return { words: 'vertices', help: 'The vertex stage of a whole program' };
    case 'graph':
      return { words: 'graph as code', help: 'What the graph says, as shading code; each line knows its node' };
    case 'field graph':
      return { words: 'field as code', help: 'What the graph of the field says, as shading code; each line knows its node' };
    case 'pixel program':
      return { words: 'pixel program', help: 'The whole pixel stage as a graphics driver gets it, with the names of your numbers' };
    case 'vertex program':
      return { words: 'vertex program', help: 'The whole vertex stage as a graphics driver gets it, with the names of your numbers' };
    case 'function':
      return { words: sheet.name, help: 'A function of the Library' };
    case 'field':
      return { words: sheet.name, help: 'A field: the distance of each place, as shading code' };
    case 'library':
      return { words: sheet.path.split('/').at(-1) ?? sheet.path, help: `Built in: ${sheet.path}. Can be read, and forked.` };
  }
}
