import {
  ChangeDetectionStrategy,
  ChangeDetectorRef,
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
import { evaluateNumber } from '@brelvin/core';
import { newId } from '../documents/new-id';
import { dragZone, numberText, refusalOf, stepPerPixel, withinRange, type NumberRange } from './number-drag';

export interface NumberChange {
  readonly value: number;
  /** The same through one drag. */
  readonly gesture?: string;
}

const DRAG_STARTS_AFTER = 3;
/** Milliseconds for which it is said what became of a typed number. */
const SAID_FOR = 5000;

/**
 * A number that is handled directly: drag sideways, farther off for finer steps; click or Enter and type an
 * expression; double-click to reset; arrow keys to step.
 */
@Component({
  selector: 'brelvin-number',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './number-field.css',
  host: { class: 'number-field' },
  template: `
    @if (editing()) {
      <input
        #text
        class="number-input"
        [attr.aria-label]="label()"
        [attr.aria-invalid]="error() ? true : null"
        [value]="shown()"
        [title]="error() ?? ''"
        (keydown)="inputKey($event, text.value)"
        (blur)="accept(text.value, true)"
        (dblclick)="resetToDefault()"
      />
      @if (error(); as words) {
        <span class="number-error" role="alert">{{ words }}</span>
      }
    } @else {
      <div
        #field
        class="number-value"
        role="spinbutton"
        tabindex="0"
        [attr.aria-label]="label()"
        [attr.aria-valuenow]="value()"
        [attr.aria-valuemin]="range().low"
        [attr.aria-valuemax]="range().high"
        [title]="hint()"
        (pointerdown)="down($event)"
        (pointermove)="move($event)"
        (pointerup)="up($event)"
        (pointercancel)="up($event)"
        (keydown)="key($event)"
        (dblclick)="resetToDefault()"
      >
        @if (share() !== null) {
          <span class="number-track" [style.width.%]="share()"></span>
        }
        <span class="number-text">{{ shown() }}{{ suffix() }}</span>
      </div>
      @if (said(); as words) {
        <span class="number-error" role="status">{{ words }}</span>
      }
      @if (zone(); as words) {
        <span class="number-zone" aria-hidden="true">{{ words }}</span>
      }
    }
  `,
})
export class NumberField {
  readonly value = input.required<number>();
  readonly label = input.required<string>();
  readonly range = input<NumberRange>({});
  readonly suffix = input('');
  /** In which typed units are read; the suffix where absent. */
  readonly unit = input<string>();
  readonly help = input('');
  readonly changed = output<NumberChange>();
  readonly resetAsked = output<void>();

  protected readonly editing = signal(false);
  protected readonly error = signal<string | undefined>(undefined);
  /** What became of a typed number that could not be as it was. */
  protected readonly said = signal<string | undefined>(undefined);
  protected readonly zone = signal<string | undefined>(undefined);
  protected readonly shown = computed(() => numberText(this.value()));
  protected readonly share = computed(() => {
    const { low, high } = this.range();
    if (low === undefined || high === undefined || high <= low) return null;
    return Math.min(Math.max((this.value() - low) / (high - low), 0), 1) * 100;
  });
  protected readonly hint = computed(() =>
    [this.help(), 'Drag to change, farther off for finer steps. Click to type: 1/3, log2(1.25), 30 deg, +25 %. Double-click resets.']
      .filter(Boolean)
      .join('\n'),
  );

  private readonly field = viewChild<ElementRef<HTMLElement>>('field');
  private readonly text = viewChild<ElementRef<HTMLInputElement>>('text');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly view = inject(ChangeDetectorRef);
  private drag?: { pointer: number; x: number; value: number; moved: number; gesture: string };

  protected down(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    this.field()?.nativeElement.setPointerCapture(event.pointerId);
    this.said.set(undefined);
    this.drag = { pointer: event.pointerId, x: event.clientX, value: this.value(), moved: 0, gesture: newId() };
  }

  protected move(event: PointerEvent): void {
    if (!this.drag) return;
    const dx = event.clientX - this.drag.x;
    this.drag.x = event.clientX;
    this.drag.moved += Math.abs(dx);
    if (this.drag.moved <= DRAG_STARTS_AFTER || dx === 0) return;
    const box = this.host.nativeElement.getBoundingClientRect();
    const { factor, label } = dragZone(event.clientY - (box.top + box.height / 2));
    this.zone.set(label);
    this.drag.value += dx * stepPerPixel(this.drag.value, this.range()) * factor;
    // A value beyond the track is drawn back to it only by hand.
    const { low = -Infinity, high = Infinity } = this.range();
    this.drag.value = Math.min(Math.max(this.drag.value, Math.min(low, this.value())), Math.max(high, this.value()));
    this.emit(this.drag.value, this.drag.gesture);
  }

  protected up(event: PointerEvent): void {
    const drag = this.drag;
    this.drag = undefined;
    this.zone.set(undefined);
    if (drag) this.field()?.nativeElement.releasePointerCapture(event.pointerId);
    if (drag && drag.moved <= DRAG_STARTS_AFTER && event.type === 'pointerup') this.edit();
  }

  protected key(event: KeyboardEvent): void {
    const { whole } = this.range();
    const step = (whole ? 1 : stepPerPixel(this.value(), this.range()) * 4) * (event.shiftKey ? 10 : 1);
    if (event.key === 'ArrowUp' || event.key === 'ArrowRight') this.emit(this.value() + step);
    else if (event.key === 'ArrowDown' || event.key === 'ArrowLeft') this.emit(this.value() - step);
    else if (event.key === 'Enter' || /^[-\d.]$/.test(event.key)) this.edit(event.key === 'Enter' ? undefined : event.key);
    else if (event.key === 'Delete' || event.key === 'Backspace') this.resetAsked.emit();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected inputKey(event: KeyboardEvent, text: string): void {
    event.stopPropagation();
    if (event.key === 'Enter') this.accept(text, false);
    if (event.key === 'Tab') this.goOn(event);
    if (event.key === 'Escape') this.leave();
  }

  /** On a card Tab goes on to its next number, past what lies between: who types one number types another. */
  private goOn(event: KeyboardEvent): void {
    const fields = [...(this.host.nativeElement.closest('[data-card]')?.querySelectorAll<HTMLElement>('brelvin-number') ?? [])];
    const next = fields[fields.indexOf(this.host.nativeElement) + (event.shiftKey ? -1 : 1)];
    if (!next) return;
    event.preventDefault();
    // Losing the focus, this field takes what was typed.
    next.querySelector<HTMLElement>('.number-value')?.focus();
  }

  /** Leaving the field keeps what can be read; Enter insists on it. */
  protected accept(text: string, leaving: boolean): void {
    if (!this.editing()) return;
    try {
      if (text === this.shown()) return this.leave();
      const value = evaluateNumber(text, { unit: this.unit() ?? this.suffix().trim(), value: this.value() });
      this.emit(value);
      this.leave();
      this.say(refusalOf(value, this.range()));
    } catch (error) {
      const words = error instanceof Error ? error.message : String(error);
      if (!leaving) return this.error.set(words);
      this.leave();
      this.say(`It is still ${this.shown()}. ${words}`);
    }
  }

  protected resetToDefault(): void {
    this.leave();
    this.resetAsked.emit();
  }

  /** The text takes the focus at once: a key pressed right after the click already belongs to it. */
  private edit(start?: string): void {
    this.editing.set(true);
    this.error.set(undefined);
    this.said.set(undefined);
    this.view.detectChanges();
    const element = this.text()?.nativeElement;
    if (!element) return;
    if (start !== undefined) element.value = start;
    element.focus();
    if (start === undefined) element.select();
  }

  private leave(): void {
    const hadFocus = this.text()?.nativeElement === document.activeElement;
    this.editing.set(false);
    this.error.set(undefined);
    if (hadFocus) setTimeout(() => this.field()?.nativeElement.focus());
  }

  private say(words: string | undefined): void {
    this.said.set(words);
    if (words) setTimeout(() => this.said() === words && this.said.set(undefined), SAID_FOR);
  }

  private emit(value: number, gesture?: string): void {
    const next = withinRange(value, this.range());
    if (next !== this.value()) this.changed.emit({ value: next, gesture });
  }
}
