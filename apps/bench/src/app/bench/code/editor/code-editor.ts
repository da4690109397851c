import { closeBrackets, closeBracketsKeymap, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, indentWithTab } from '@codemirror/commands';
import { bracketMatching, codeFolding, foldGutter, foldKeymap, indentOnInput } from '@codemirror/language';
import { linter, lintGutter, setDiagnostics, type Diagnostic as Shown } from '@codemirror/lint';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { Annotation, Compartment, EditorSelection, EditorState, type Extension } from '@codemirror/state';
import { drawSelection, EditorView, highlightActiveLine, highlightActiveLineGutter, keymap, lineNumbers } from '@codemirror/view';
import {
  ChangeDetectionStrategy,
  Component,
  CSP_NONCE,
  effect,
  ElementRef,
  inject,
  input,
  output,
  untracked,
  type AfterViewInit,
  type OnDestroy,
  ViewEncapsulation,
} from '@angular/core';
import type { CodeMend, Diagnostic, Origin, Range, TextEdit, TextRole } from '@brelvin/core';
import { Compiler } from '../../compile/compiler';
import { assistance } from './assistance';
import { cursorInView } from './cursor-in-view';
import { markAndShow, markedLines } from './marked-lines';
import { shadingLanguage } from './shading-language';
import { soundInput } from './sound-input';
import { typedOver } from './typed-over';

/** Text that comes from outside, and is not to be told there again. */
const fromOutside = Annotation.define<boolean>();

/** A field for shading code, with all that helps to write it. */
@Component({
  selector: 'brelvin-code-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './code-editor.css',
  host: { class: 'code-editor' },
  template: '',
})
export class CodeEditor implements AfterViewInit, OnDestroy {
  readonly label = input.required<string>();
  readonly text = input.required<string>();
  readonly role = input.required<TextRole>();
  readonly readOnly = input(false);
  readonly diagnostics = input<readonly Diagnostic[]>([]);
  /** Lines that belong to what is chosen elsewhere, from 1. */
  readonly marked = input<readonly number[]>([]);
  /** A place to bring into view, with the cursor on it; a new object each time. */
  readonly revealed = input<Range>();
  /** What is written, at once. */
  readonly written = output<string>();
  /** What was asked for is not in this text: the next thing that is wrong, or one that can be mended. */
  readonly beyond = output<'next' | 'mend'>();
  /** The cursor went to another line, from 1. */
  readonly lineChosen = output<number>();
  readonly declarationAsked = output<Origin>();
  readonly undoAsked = output<void>();
  readonly redoAsked = output<void>();
  /** The name under the cursor is to be called otherwise. */
  readonly renameAsked = output<number>();
  /** Characters that cannot be kept were taken out of what came in. */
  readonly unsound = output<void>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly compiler = inject(Compiler);
  private readonly nonce = inject(CSP_NONCE, { optional: true });
  private readonly writable = new Compartment();
  private view?: EditorView;

  constructor() {
    effect(() => {
      const text = this.text();
      untracked(() => this.take(text));
    });
    effect(() => {
      const readOnly = this.readOnly();
      this.view?.dispatch({ effects: this.writable.reconfigure(readOnlyState(readOnly)) });
    });
    effect(() => {
      const [diagnostics, text] = [this.diagnostics(), this.text()];
      untracked(() => this.showDiagnostics(diagnostics, text));
    });
    effect(() => {
      const marked = this.marked();
      if (this.view) markAndShow(this.view, marked);
    });
    effect(() => {
      const range = this.revealed();
      if (range) untracked(() => this.reveal(range));
    });
  }

  ngAfterViewInit(): void {
    this.view = new EditorView({
      parent: this.host.nativeElement,
      state: EditorState.create({ doc: this.text(), extensions: this.extensions() }),
    });
    this.showDiagnostics(this.diagnostics(), this.text());
    markAndShow(this.view, this.marked());
    const range = this.revealed();
    if (range) this.reveal(range);
  }

  ngOnDestroy(): void {
    this.view?.destroy();
  }

  private extensions(): Extension {
    const run = (work: (view: EditorView) => unknown) => (view: EditorView) => {
      work(view);
      return true;
    };
    return [
      this.nonce ? EditorView.cspNonce.of(this.nonce) : [],
      lineNumbers(),
      foldGutter({ openText: '−', closedText: '+' }),
      codeFolding({ placeholderText: '…' }),
      highlightActiveLine(),
      highlightActiveLineGutter(),
      drawSelection(),
      EditorState.allowMultipleSelections.of(true),
      bracketMatching(),
      closeBrackets(),
      indentOnInput(),
      search({ top: true }),
      highlightSelectionMatches(),
      lintGutter(),
      soundInput(() => this.unsound.emit()),
      typedOver,
      linter(null, { tooltipFilter: (all) => [...all] }),
      markedLines,
      cursorInView,
      shadingLanguage,
      assistance({ assist: this.compiler.assist, role: () => this.role(), open: (place) => this.declarationAsked.emit(place) }),
      this.writable.of(readOnlyState(this.readOnly())),
      EditorView.contentAttributes.of({ 'aria-label': this.label(), tabindex: '0', spellcheck: 'false', autocapitalize: 'off' }),
      keymap.of([
        { key: 'Alt-m', run: run(() => this.mend()) },
        { key: 'Alt-n', run: run(() => this.nextProblem()) },
        { key: 'Alt-g', run: run((view) => void this.askDeclaration(view.state.selection.main.head)) },
        { key: 'Alt-r', run: run((view) => this.renameAsked.emit(view.state.selection.main.head)) },
        { key: 'Mod-z', run: run(() => this.undoAsked.emit()), preventDefault: true },
        { key: 'Mod-Shift-z', run: run(() => this.redoAsked.emit()), preventDefault: true },
        { key: 'Mod-y', run: run(() => this.redoAsked.emit()), preventDefault: true },
        ...closeBracketsKeymap,
        ...completionKeymap,
        ...searchKeymap,
        ...foldKeymap,
        indentWithTab,
        ...defaultKeymap,
      ]),
      EditorView.domEventHandlers({
        click: (event, view) => {
          if (!event.ctrlKey && !event.metaKey) return false;
          const at = view.posAtCoords({ x: event.clientX, y: event.clientY });
          if (at !== null) void this.askDeclaration(at);
          return at !== null;
        },
      }),
      EditorView.updateListener.of((update) => {
        const outside = update.transactions.some((each) => each.annotation(fromOutside));
        if (update.docChanged && !outside) this.written.emit(update.state.doc.toString());
        if (update.selectionSet && !outside) this.lineChosen.emit(update.state.doc.lineAt(update.state.selection.main.head).number);
      }),
    ];
  }

  /** A text from outside: only what differs is put, so that the cursor stays where it is. */
  private take(text: string): void {
    const { view } = this;
    if (!view) return;
    const now = view.state.doc.toString();
    if (now === text) return;
    let from = 0;
    while (from < now.length && from < text.length && now[from] === text[from]) from++;
    let end = 0;
    while (end < now.length - from && end < text.length - from && now[now.length - 1 - end] === text[text.length - 1 - end]) end++;
    view.dispatch({
      changes: { from, to: now.length - end, insert: text.slice(from, text.length - end) },
      annotations: fromOutside.of(true),
    });
  }

  private showDiagnostics(diagnostics: readonly Diagnostic[], text: string): void {
    const { view } = this;
    // What is being written is not what they are about.
    if (!view || view.state.doc.toString() !== text) return;
    view.dispatch(
      setDiagnostics(
        view.state,
        diagnostics.map((each) => this.shown(each, text.length)),
      ),
    );
  }

  private shown({ range, severity, message, mends = [], related = [] }: Diagnostic, length: number): Shown {
    const [from, to] = [Math.min(range.from, length), Math.min(Math.max(range.to, range.from), length)];
    return {
      from,
      to: Math.max(to, Math.min(from + 1, length)),
      severity,
      message: [
        message,
        ...related.map((each) => `Line ${each.line}: ${each.message.charAt(0).toLowerCase()}${each.message.slice(1)}`),
      ].join(' '),
      actions: mends.map((mend) => ({ name: mend.label, apply: (view: EditorView) => apply(view, mend.edits) })),
    };
  }

  private reveal({ from, to }: Range): void {
    const { view } = this;
    if (!view) return;
    const { length } = view.state.doc;
    const selection = EditorSelection.single(Math.min(from, length), Math.min(to, length));
    view.dispatch({
      selection,
      effects: EditorView.scrollIntoView(Math.min(from, length), { y: 'center' }),
      annotations: fromOutside.of(true),
    });
    view.focus();
  }

  /** Mends what is nearest to the cursor: on its line, else the first that can be mended; beyond this text when nothing here can. */
  mend(): void {
    const found = this.mendable();
    if (this.view && found) apply(this.view, found.edits);
    else this.beyond.emit('mend');
  }

  private mendable(): CodeMend | undefined {
    const { view } = this;
    if (!view) return undefined;
    const line = view.state.doc.lineAt(view.state.selection.main.head);
    const withMend = this.diagnostics().filter(({ mends }) => mends && mends.length > 0);
    const here = withMend.find(({ range }) => range.from >= line.from && range.from <= line.to);
    return (here ?? withMend[0])?.mends?.[0];
  }

  nextProblem(): void {
    const { view } = this;
    const all = [...this.diagnostics()].sort((a, b) => a.range.from - b.range.from);
    const next = all.find(({ range }) => range.from > (view?.state.selection.main.head ?? 0));
    if (next) this.reveal({ from: next.range.from, to: next.range.from });
    else this.beyond.emit('next');
  }

  /** Goes to the first thing that is wrong here. */
  firstProblem(): void {
    const [first] = [...this.diagnostics()].sort((a, b) => a.range.from - b.range.from);
    if (first) this.reveal({ from: first.range.from, to: first.range.from });
  }

  /** Shows where the name at a place, or under the cursor, is written. */
  async askDeclaration(at = this.view?.state.selection.main.head ?? 0): Promise<void> {
    const help = await this.compiler.assist.help(this.view?.state.doc.toString() ?? '', this.role(), at);
    if (help?.declared?.range) this.declarationAsked.emit(help.declared);
  }

  askRename(): void {
    this.renameAsked.emit(this.view?.state.selection.main.head ?? 0);
  }

  change(edits: readonly TextEdit[]): void {
    if (this.view) apply(this.view, edits);
  }

  focus(): void {
    this.view?.focus();
  }
}

function apply(view: EditorView, edits: readonly TextEdit[]): void {
  view.dispatch({ changes: edits.map(({ from, to, text }) => ({ from, to, insert: text })), userEvent: 'input.mend' });
  view.focus();
}

function readOnlyState(readOnly: boolean): Extension {
  return [EditorState.readOnly.of(readOnly), EditorView.editable.of(true)];
}
