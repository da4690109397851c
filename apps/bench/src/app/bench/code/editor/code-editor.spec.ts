import { EditorSelection } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Diagnostic, Origin } from '@brelvin/core';
import { Compiler } from '../../compile/compiler';
import { CodeEditor } from './code-editor';

const TEXT = 'float a = 1.0;\nfloat b = smoothstpe(a);\nfloat c = sinn(b);\n';

/** Something wrong with a word of the text, and what is to stand there instead. */
function wrong(word: string, instead?: string): Diagnostic {
  const from = TEXT.indexOf(word);
  const range = { from, to: from + word.length };
  const before = TEXT.slice(0, from).split('\n');
  return {
    severity: 'error',
    message: `Nothing here is called “${word}”.`,
    path: 'paint',
    range,
    line: before.length,
    column: (before.at(-1)?.length ?? 0) + 1,
    ...(instead === undefined ? {} : { mends: [{ label: `Write “${instead}”`, edits: [{ ...range, text: instead }] }] }),
  };
}

describe('CodeEditor', () => {
  let fixture: ComponentFixture<CodeEditor>;
  let view: EditorView;
  const written: string[] = [];
  const lines: number[] = [];
  const asked: string[] = [];
  let help: { readonly declared?: Origin } | undefined;

  beforeEach(async () => {
    written.length = 0;
    lines.length = 0;
    asked.length = 0;
    help = undefined;
    const assist = { completions: async () => undefined, help: async () => help };
    TestBed.configureTestingModule({
      imports: [CodeEditor],
      providers: [provideZonelessChangeDetection(), { provide: Compiler, useValue: { assist } }],
    });
    fixture = TestBed.createComponent(CodeEditor);
    for (const [name, value] of Object.entries({ label: 'Code of Slate', text: TEXT, role: { role: 'material' } })) {
      fixture.componentRef.setInput(name, value);
    }
    fixture.componentInstance.written.subscribe((text) => written.push(text));
    fixture.componentInstance.lineChosen.subscribe((line) => lines.push(line));
    fixture.componentInstance.beyond.subscribe((each) => asked.push(each));
    await fixture.whenStable();
    view = EditorView.findFromDOM(fixture.nativeElement as HTMLElement)!;
  });

  async function set(name: string, value: unknown): Promise<void> {
    fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
  }

  const goTo = (line: number): void => view.dispatch({ selection: { anchor: view.state.doc.line(line).from } });
  const seen = (selector: string): HTMLElement[] => [...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLElement>(selector)];

  it('takes out of what is pasted what no file can keep, says so, and leaves whole characters alone', () => {
    let times = 0;
    fixture.componentInstance.unsound.subscribe(() => times++);
    view.dispatch({ changes: { from: 0, insert: '// 🏮\n' } });
    expect(times).toBe(0);
    view.dispatch({ changes: { from: 0, insert: '// a\0b\ud83c\n' } });
    expect(times).toBe(1);
    expect(written.at(-1)).toBe(`// ab\n// 🏮\n${TEXT}`);
    expect(view.state.selection.main.head).withContext('the cursor stands behind it').toBe(6);
  });

  describe('typed over', () => {
    const selected = (from: number, to: number): void => view.dispatch({ selection: { anchor: from, head: to } });

    /** A key that writes something; whether the browser is left to put it in. */
    function key(data: string, inputType = 'insertText'): boolean {
      return view.contentDOM.dispatchEvent(new InputEvent('beforeinput', { data, inputType, bubbles: true, cancelable: true }));
    }

    it('is put in by the editor where something is selected, and by the browser where nothing is', () => {
      selected(0, 'float a'.length);
      expect(key('v')).toBe(false);
      expect(view.state.doc.line(1).text).toBe('v = 1.0;');
      expect(written.at(-1)).toBe(TEXT.replace('float a', 'v'));
      expect(view.state.selection.main).toEqual(jasmine.objectContaining({ anchor: 1, head: 1 }));
      expect(key('w')).toBe(true);
      selected(0, 1);
      expect(key('w', 'insertCompositionText')).withContext('what is composed of several keys').toBe(true);
    });

    it('goes past those who see all that is typed: a bracket surrounds what is selected', () => {
      selected(10, 13);
      key('(');
      expect(view.state.doc.line(1).text).toBe('float a = (1.0);');
    });

    it('changes all selections at once', () => {
      view.dispatch({ selection: EditorSelection.create([EditorSelection.range(0, 5), EditorSelection.range(15, 20)]) });
      key('x');
      expect(view.state.doc.toString()).toBe(TEXT.replaceAll('float', 'x').replace('x c', 'float c'));
    });

    it('changes nothing that is only to be read', async () => {
      await set('readOnly', true);
      selected(0, 5);
      expect(key('x')).toBe(false);
      expect(view.state.doc.toString()).toBe(TEXT);
    });
  });

  it('has a name for those who hear it, and shows the text', () => {
    expect(view.contentDOM.getAttribute('aria-label')).toBe('Code of Slate');
    expect(view.state.doc.toString()).toBe(TEXT);
  });

  it('tells what is written, and not what comes from outside', async () => {
    view.dispatch({ changes: { from: 0, insert: '// ' } });
    expect(written).toEqual([`// ${TEXT}`]);
    await set('text', `// other\n${TEXT}`);
    expect(view.state.doc.toString()).toBe(`// other\n${TEXT}`);
    expect(written.length).toBe(1);
  });

  it('keeps the cursor where it is when text before it comes from outside', async () => {
    view.dispatch({ selection: { anchor: TEXT.indexOf('sinn') } });
    await set('text', `// one more line\n${TEXT}`);
    expect(view.state.sliceDoc(view.state.selection.main.head).startsWith('sinn')).toBeTrue();
  });

  it('marks what is wrong, and mends what stands on the line of the cursor', async () => {
    await set('diagnostics', [wrong('smoothstpe', 'smoothstep'), wrong('sinn', 'sin')]);
    expect(seen('.cm-lintRange-error').map((each) => each.textContent)).toEqual(['smoothstpe', 'sinn']);
    goTo(3);
    fixture.componentInstance.mend();
    expect(written).toEqual([TEXT.replace('sinn', 'sin')]);
  });

  it('mends the first that can be mended where nothing is wrong with the line', async () => {
    await set('diagnostics', [wrong('a = 1.0'), wrong('sinn', 'sin')]);
    goTo(1);
    fixture.componentInstance.mend();
    expect(written).toEqual([TEXT.replace('sinn', 'sin')]);
  });

  it('does nothing where nothing can be mended', async () => {
    fixture.componentInstance.mend();
    await set('diagnostics', [wrong('sinn')]);
    fixture.componentInstance.mend();
    expect(written).toEqual([]);
    expect(asked).toEqual(['mend', 'mend']);
  });

  it('shows no mistakes of a text that it has no more', async () => {
    view.dispatch({ changes: { from: 0, to: TEXT.length, insert: 'x' } });
    await set('diagnostics', [wrong('smoothstpe', 'smoothstep')]);
    expect(seen('.cm-lintRange-error')).toEqual([]);
  });

  it('goes from one mistake to the next, and round', async () => {
    await set('diagnostics', [wrong('sinn'), wrong('smoothstpe')]);
    const at = (): string => view.state.sliceDoc(view.state.selection.main.head, view.state.selection.main.head + 4);
    goTo(1);
    fixture.componentInstance.nextProblem();
    expect(at()).toBe('smoo');
    fixture.componentInstance.nextProblem();
    expect([at(), asked]).toEqual(['sinn', []]);
    // Behind the last one the texts beside this are asked; then it begins anew.
    fixture.componentInstance.nextProblem();
    expect([at(), asked]).toEqual(['sinn', ['next']]);
    fixture.componentInstance.firstProblem();
    expect(at()).toBe('smoo');
  });

  it('tells which line is chosen by hand, and not where it was led to', async () => {
    goTo(2);
    expect(lines).toEqual([2]);
    await set('revealed', { from: TEXT.indexOf('sinn'), to: TEXT.indexOf('sinn') + 4 });
    expect(view.state.sliceDoc(view.state.selection.main.from, view.state.selection.main.to)).toBe('sinn');
    expect(lines).toEqual([2]);
  });

  async function height(pixels: number): Promise<void> {
    const host = fixture.nativeElement as HTMLElement;
    host.style.cssText = `display: block; height: ${pixels}px; overflow: hidden`;
    view.dom.style.height = `${pixels}px`;
    view.scrollDOM.style.overflow = 'auto';
    // The observer of sizes answers with the next frame, and the view scrolls with the one after it.
    for (let frame = 0; frame < 4; frame++) await new Promise((resolve) => requestAnimationFrame(resolve));
  }

  it('keeps the line of the cursor in view when the field gets lower, and leaves who looks elsewhere there', async () => {
    const hidden = (): number => view.coordsAtPos(view.state.selection.main.head)!.bottom - view.scrollDOM.getBoundingClientRect().bottom;
    await set('text', TEXT.repeat(20));
    await height(200);
    view.dispatch({ selection: { anchor: view.state.doc.line(9).from } });
    expect(hidden()).toBeLessThanOrEqual(0);
    await height(90);
    expect(hidden()).toBeLessThanOrEqual(0);
    await height(200);
    view.scrollDOM.scrollTop = 0;
    view.dispatch({ selection: { anchor: view.state.doc.line(30).from } });
    await height(90);
    expect(view.scrollDOM.scrollTop).toBe(0);
  });

  it('marks the lines of what is chosen elsewhere', async () => {
    await set('marked', [2, 3]);
    expect(seen('.code-marked').map((each) => each.textContent)).toEqual(TEXT.split('\n').slice(1, 3));
    await set('marked', [99]);
    expect(seen('.code-marked')).toEqual([]);
  });

  it('brings marked lines into view', async () => {
    await set('text', TEXT.repeat(40));
    await height(200);
    await set('marked', [view.state.doc.lines - 1]);
    await height(200);
    expect(seen('.code-marked').length).toBe(1);
    const mark = seen('.code-marked')[0]!.getBoundingClientRect();
    expect(mark.bottom).toBeLessThanOrEqual(view.scrollDOM.getBoundingClientRect().bottom + 1);
    expect(view.scrollDOM.scrollTop).toBeGreaterThan(0);
  });

  it('lets nothing be typed into what is only read', async () => {
    await set('readOnly', true);
    expect(view.state.readOnly).toBeTrue();
    await set('readOnly', false);
    expect(view.state.readOnly).toBeFalse();
  });

  it('asks to be shown where a name is written, if it is written anywhere', async () => {
    const asked: Origin[] = [];
    fixture.componentInstance.declarationAsked.subscribe((place) => asked.push(place));
    await fixture.componentInstance.askDeclaration(3);
    expect(asked).toEqual([]);
    help = { declared: { path: 'light/rim.glsl', range: { from: 1, to: 2 } } };
    await fixture.componentInstance.askDeclaration(3);
    expect(asked.map(({ path }) => path)).toEqual(['light/rim.glsl']);
  });
});
