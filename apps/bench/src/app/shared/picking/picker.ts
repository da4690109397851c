import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output, signal, viewChild } from '@angular/core';
import { Popover } from '../controls/popover';
import { Icon } from '../icons/icon';
import { PickerList } from './picker-list';
import type { PickerEntry, PickerSource } from './picker-source';

/** A button that says what is picked, and opens a list to pick another one. */
@Component({
  selector: 'brelvin-picker',
  imports: [Icon, PickerList, Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      #button
      type="button"
      class="bar-button picker-button"
      aria-haspopup="dialog"
      [attr.aria-expanded]="open()"
      [attr.aria-label]="label() ? null : source().words[0] + ': ' + name()"
      [title]="'Choose another ' + source().words[0]"
      (click)="open.set(!open())"
      (keydown.escape)="open.set(false)"
    >
      @if (label(); as words) {
        <span class="field-label">{{ words }}</span>
      }
      <span class="picker-picked">{{ name() }}</span> <brelvin-icon name="down" />
    </button>
    <brelvin-popover [label]="'Choose a ' + source().words[0]" [anchor]="button" [place]="place()" [leftOf]="leftOf()" [(open)]="open">
      <ng-template>
        <brelvin-picker-list [source]="source()" [current]="current()" [extra]="extra()" (chosen)="take($event)" (closed)="close()" />
      </ng-template>
    </brelvin-popover>
  `,
})
export class Picker {
  readonly source = input.required<PickerSource>();
  /** What is picked now, by name. */
  readonly name = input.required<string>();
  readonly current = input<string>();
  /** What stands before its name, where there is room. */
  readonly label = input('');
  readonly extra = input<readonly PickerEntry[]>([]);
  readonly place = input<'beside' | 'left of the stage'>('beside');
  /** The list keeps left of this, CSS pixels of the window. */
  readonly leftOf = input(Infinity);
  readonly chosen = output<PickerEntry>();
  protected readonly open = signal(false);
  private readonly button = viewChild.required<ElementRef<HTMLButtonElement>>('button');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected take(entry: PickerEntry): void {
    this.close();
    this.chosen.emit(entry);
  }

  protected close(): void {
    this.open.set(false);
    if (this.host.nativeElement.isConnected) this.button().nativeElement.focus();
  }
}
