import { ChangeDetectionStrategy, Component, input, output, ViewEncapsulation } from '@angular/core';
import { BEGINNINGS, type Beginning } from './new-materials';

/** What a material can begin with, for who is here for the first time: in a line, or, where nothing else is to be seen, with what each is. */
@Component({
  selector: 'brelvin-beginnings',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './beginnings.css',
  host: { class: 'beginnings', role: 'group', 'aria-label': 'Start a material', '[class.beginnings-empty]': 'told()' },
  template: `
    <span class="hint">{{ words() }}</span>
    @for (each of all; track each.id) {
      <span class="beginning">
        <button type="button" class="choice-alone" [disabled]="busy()" [title]="each.help" (click)="chosen.emit(each)">
          {{ each.title }}
        </button>
        @if (told()) {
          <span class="hint">{{ each.help }}</span>
        }
      </span>
    }
  `,
})
export class BeginningsList {
  readonly words = input.required<string>();
  /** Whether each says what it is. */
  readonly told = input(false);
  readonly busy = input(false);
  readonly chosen = output<Beginning>();
  protected readonly all = BEGINNINGS;
}
