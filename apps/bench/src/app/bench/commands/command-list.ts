import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import { ListChoice } from '../../shared/controls/list-choice';
import { findCommands, type Command } from './command';

/** All commands, to be searched and run by keyboard or pointer. */
@Component({
  selector: 'brelvin-command-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './command-list.css',
  host: { class: 'popover command-list', role: 'dialog', 'aria-label': 'Commands', '(focusout)': 'left($event)' },
  template: `
    <input
      #field
      class="text-input"
      role="combobox"
      aria-expanded="true"
      aria-controls="command-entries"
      aria-label="Find a command"
      [attr.aria-activedescendant]="found().length > 0 ? 'command-' + choice.index() : null"
      placeholder="group, align, tidy …"
      spellcheck="false"
      autocomplete="off"
      (input)="query.set(field.value)"
      (keydown)="key($event)"
    />
    <ul id="command-entries" class="finder-list" role="listbox" aria-label="Commands">
      @for (command of found(); track command.id; let index = $index) {
        <li
          [id]="'command-' + index"
          class="finder-entry"
          role="option"
          [class.chosen]="index === choice.index()"
          [class.unable]="command.unable?.()"
          [attr.aria-selected]="index === choice.index()"
          [attr.aria-disabled]="command.unable?.() ? true : null"
          [title]="command.unable?.() ?? ''"
          (pointermove)="choice.hover($event, index)"
          (pointerdown)="$event.preventDefault(); run(command)"
        >
          <span>{{ command.title }}</span>
          @if (command.keys) {
            <kbd>{{ command.keys }}</kbd>
          }
        </li>
      } @empty {
        <li class="hint px-2 py-1">No command is called that. Try “align”, “group”, “unused”.</li>
      }
    </ul>
  `,
})
export class CommandList {
  readonly commands = input.required<readonly Command[]>();
  readonly closed = output<void>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  protected readonly query = signal('');
  protected readonly found = computed(() => findCommands(this.commands(), this.query()));
  protected readonly choice = new ListChoice('command-', this.query, this.found);

  constructor() {
    afterNextRender(() => this.field().nativeElement.focus());
  }

  protected key(event: KeyboardEvent): void {
    this.choice.key(event, { take: (command) => this.run(command), leave: () => this.closed.emit() });
  }

  protected run(command: Command): void {
    if (command.unable?.()) return;
    this.closed.emit();
    command.run();
  }

  protected left(event: FocusEvent): void {
    if (!this.host.nativeElement.contains(event.relatedTarget as Node | null)) this.closed.emit();
  }
}
