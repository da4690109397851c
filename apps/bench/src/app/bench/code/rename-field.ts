import { ChangeDetectionStrategy, Component, ElementRef, input, output, viewChild, type AfterViewInit } from '@angular/core';

/** Asks for another name of what stands under the cursor. */
@Component({
  selector: 'brelvin-rename-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'rename-field' },
  template: `
    <label>
      <span class="field-label">Call “{{ name() }}” ({{ count() }} {{ count() === 1 ? 'place' : 'places' }})</span>
      <input
        #field
        class="text-input code-name"
        maxlength="64"
        [value]="name()"
        (keydown.enter)="wanted.emit(field.value.trim())"
        (keydown.escape)="closed.emit()"
      />
    </label>
    <button type="button" class="bar-button" (click)="wanted.emit(field.value.trim())">rename</button>
    <button type="button" class="bar-button" (click)="closed.emit()">cancel</button>
    @if (problem(); as words) {
      <span role="alert">{{ words }}</span>
    }
  `,
})
export class RenameField implements AfterViewInit {
  readonly name = input.required<string>();
  readonly count = input.required<number>();
  readonly problem = input('');
  readonly wanted = output<string>();
  readonly closed = output<void>();
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  ngAfterViewInit(): void {
    this.field().nativeElement.select();
  }
}
