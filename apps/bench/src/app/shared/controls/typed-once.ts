import { soundText } from '@brelvin/core';
import { afterNextRender, Directive, ElementRef, inject, output } from '@angular/core';

/**
 * A text field that stands in for what it changes: it comes with focus and its text chosen, gives its text once, by Enter or
 * when it is left, and nothing after Escape.
 */
@Directive({
  selector: 'input[brelvinTypedOnce]',
  host: { '(keydown.enter)': 'give()', '(keydown.escape)': 'leave($event)', '(blur)': 'give()' },
})
export class TypedOnce {
  readonly typed = output<string>();
  readonly left = output<void>();
  private readonly field = inject<ElementRef<HTMLInputElement>>(ElementRef);
  private done = false;

  constructor() {
    afterNextRender(() => {
      this.field.nativeElement.focus();
      this.field.nativeElement.select();
    });
  }

  protected give(): void {
    // A field that is taken off the page while it has the focus is also left.
    if (this.done) return;
    this.done = true;
    this.typed.emit(soundText(this.field.nativeElement.value));
  }

  protected leave(event: Event): void {
    event.stopPropagation();
    this.done = true;
    this.left.emit();
  }
}
