import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  type OnDestroy,
  ViewEncapsulation,
} from '@angular/core';
import { codeKind, FIRST_CODE, LONGEST_CODE, withEdits, type CodeMend } from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import { Icon } from '../../shared/icons/icon';
import { GraphEditor } from '../editors/graph-editor';

const PAUSE_MS = 350;

/** The function of a code node, to be written; what is wrong with it is said at its line. */
@Component({
  selector: 'brelvin-code-field',
  imports: [Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './code-field.css',
  host: { class: 'code-field' },
  template: `
    <textarea
      #field
      class="text-input code-text"
      aria-label="Code of the node"
      spellcheck="false"
      autocapitalize="off"
      wrap="off"
      [rows]="rows()"
      [attr.maxlength]="longest"
      [value]="text()"
      [attr.aria-invalid]="problem() ? 'true' : null"
      (input)="typed(field.value)"
      (blur)="commit()"
    ></textarea>
    @if (problem(); as found) {
      <p class="code-problem" role="status">
        <brelvin-icon name="warning" />
        <span
          >Line {{ found.line }}, column {{ found.column }}: {{ found.message }}
          @for (mend of found.mends ?? []; track $index) {
            <button type="button" class="text-button" (click)="apply(field, mend)">{{ mend.label }}</button>
          }
        </span>
      </p>
    } @else {
      <p class="hint">What the last function takes are inlets, what it gives is the outlet. All functions of the library can be called.</p>
    }
  `,
})
export class CodeField implements OnDestroy {
  readonly node = input.required<string>();
  readonly code = input<string>();

  private readonly editor = inject(GraphEditor);
  protected readonly longest = LONGEST_CODE;
  /** What is typed, until it is in the document. */
  protected readonly text = linkedSignal(() => this.code() ?? FIRST_CODE);
  protected readonly rows = computed(() => Math.min(Math.max(this.text().split('\n').length, 4), 12));
  protected readonly problem = computed(() => {
    const made = codeKind(this.text());
    return 'problem' in made ? made.problem : undefined;
  });
  private timer?: ReturnType<typeof setTimeout>;
  private gesture = newId();

  protected typed(text: string): void {
    this.text.set(text);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.commit(), PAUSE_MS);
  }

  /** Steps that follow each other without leaving the field are one to undo. */
  protected commit(): void {
    clearTimeout(this.timer);
    if (this.text() === (this.code() ?? FIRST_CODE)) return;
    this.editor.do(this.editor.typed().edits.setCode(this.node(), this.text()), this.gesture);
  }

  protected apply(field: HTMLTextAreaElement, { edits }: CodeMend): void {
    this.typed(withEdits(this.text(), edits));
    this.commit();
    field.focus();
  }

  ngOnDestroy(): void {
    this.commit();
  }
}
