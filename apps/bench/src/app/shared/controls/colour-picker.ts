import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, ViewEncapsulation } from '@angular/core';
import { hexFromLinear, hsvFromSrgb, linearFromHex, linearFromSrgb, srgbFromHsv, srgbFromLinear } from '@brelvin/core';
import { newId } from '../documents/new-id';
import { NumberField, type NumberChange } from './number-field';

export interface ColourChange {
  /** Scene-linear Rec. 709. */
  readonly value: readonly number[];
  readonly gesture?: string;
}

type Hsv = readonly [number, number, number];

/** Picks a colour by eye, by hex, by sRGB or by linear components. */
@Component({
  selector: 'brelvin-colour-picker',
  imports: [NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './colour-picker.css',
  host: { class: 'colour-picker', role: 'group', '[attr.aria-label]': 'label()' },
  template: `
    <div
      #square
      class="colour-square"
      role="slider"
      tabindex="0"
      aria-label="Saturation and brightness; arrow keys move"
      [attr.aria-valuenow]="percent(hsv()[1])"
      [attr.aria-valuetext]="'saturation ' + percent(hsv()[1]) + ' %, brightness ' + percent(hsv()[2]) + ' %'"
      [style.background-color]="hueColour()"
      (pointerdown)="squareDown($event, square)"
      (pointermove)="squareMove($event, square)"
      (pointerup)="gesture = undefined"
      (keydown)="squareKey($event)"
    >
      <span class="colour-shade"></span>
      <span class="colour-mark" [style.left.%]="hsv()[1] * 100" [style.top.%]="100 - hsv()[2] * 100"></span>
    </div>
    <div
      #strip
      class="colour-hues"
      role="slider"
      tabindex="0"
      aria-label="Hue"
      aria-valuemin="0"
      aria-valuemax="360"
      [attr.aria-valuenow]="percent(hsv()[0] * 3.6)"
      (pointerdown)="hueDown($event, strip)"
      (pointermove)="hueMove($event, strip)"
      (pointerup)="gesture = undefined"
      (keydown)="hueKey($event)"
    >
      <span class="colour-hue-mark" [style.left.%]="hsv()[0] * 100"></span>
    </div>
    <div class="colour-rows">
      <label class="colour-label" for="colour-hex">Hex</label>
      <input
        #hexText
        id="colour-hex"
        class="text-input col-span-3"
        spellcheck="false"
        [value]="hex()"
        (change)="hexTyped(hexText)"
        (keydown.enter)="$event.preventDefault(); hexTyped(hexText); done.emit()"
        (keydown)="$event.stopPropagation()"
      />
      <span class="colour-label">sRGB</span>
      @for (part of parts; track part) {
        <brelvin-number
          [value]="encoded()[part] ?? 0"
          [range]="encodedRange"
          [label]="'sRGB ' + names[part]"
          (changed)="encodedTyped(part, $event)"
        />
      }
      <span class="colour-label">Linear</span>
      @for (part of parts; track part) {
        <brelvin-number
          [value]="value()[part] ?? 0"
          [range]="linearRange"
          [label]="'Linear ' + names[part]"
          (changed)="linearTyped(part, $event)"
        />
      }
    </div>
  `,
})
export class ColourPicker {
  readonly value = input.required<readonly number[]>();
  readonly label = input('Colour');
  readonly changed = output<ColourChange>();
  /** A colour was typed and entered: there is nothing more to pick. */
  readonly done = output<void>();

  protected readonly parts = [0, 1, 2] as const;
  protected readonly names = ['red', 'green', 'blue'] as const;
  protected readonly encodedRange = { low: 0, high: 255, whole: true };
  protected readonly linearRange = { low: 0, high: 1 };
  protected readonly hex = computed(() => hexFromLinear(this.value()));
  protected readonly encoded = computed(() => this.value().map((each) => Math.round(srgbFromLinear(Math.min(each, 1)) * 255)));
  /** Hue and saturation stay where the hand left them while a colour is grey or black. */
  protected readonly hsv = linkedSignal<readonly number[], Hsv>({
    source: this.value,
    computation: (value, previous) => {
      const next = hsvFromSrgb(value.map((each) => srgbFromLinear(Math.min(Math.max(each, 0), 1))));
      if (!previous) return next;
      const [hue, saturation] = previous.value;
      if (next[2] === 0) return [hue, saturation, 0];
      return next[1] < 1e-6 ? [hue, 0, next[2]] : next;
    },
  });
  protected readonly hueColour = computed(() => hexFromLinear(srgbFromHsv([this.hsv()[0], 1, 1]).map(linearFromSrgb)));
  protected gesture?: string;

  protected percent(share: number): number {
    return Math.round(share * 100);
  }

  protected squareDown(event: PointerEvent, square: HTMLElement): void {
    this.gesture = newId();
    square.setPointerCapture(event.pointerId);
    this.squareMove(event, square);
  }

  protected squareMove(event: PointerEvent, square: HTMLElement): void {
    if (!this.gesture) return;
    const box = square.getBoundingClientRect();
    this.set([this.hsv()[0], share(event.clientX - box.left, box.width), 1 - share(event.clientY - box.top, box.height)]);
  }

  protected hueDown(event: PointerEvent, strip: HTMLElement): void {
    this.gesture = newId();
    strip.setPointerCapture(event.pointerId);
    this.hueMove(event, strip);
  }

  protected hueMove(event: PointerEvent, strip: HTMLElement): void {
    if (!this.gesture) return;
    const box = strip.getBoundingClientRect();
    this.set([Math.min(share(event.clientX - box.left, box.width), 0.9999), this.hsv()[1], this.hsv()[2]]);
  }

  protected squareKey(event: KeyboardEvent): void {
    const moves: Record<string, readonly [number, number]> = {
      ArrowLeft: [-0.02, 0],
      ArrowRight: [0.02, 0],
      ArrowUp: [0, 0.02],
      ArrowDown: [0, -0.02],
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    const [hue, saturation, value] = this.hsv();
    this.set([hue, share(saturation + move[0], 1), share(value + move[1], 1)]);
  }

  protected hueKey(event: KeyboardEvent): void {
    const move = { ArrowLeft: -0.01, ArrowRight: 0.01 }[event.key];
    if (move === undefined) return;
    event.preventDefault();
    this.set([(this.hsv()[0] + move + 1) % 1, this.hsv()[1], this.hsv()[2]]);
  }

  protected hexTyped(field: HTMLInputElement): void {
    const value = linearFromHex(field.value);
    if (value) this.changed.emit({ value });
    field.value = this.hex();
  }

  protected encodedTyped(part: number, { value, gesture }: NumberChange): void {
    this.emitPart(part, linearFromSrgb(value / 255), gesture);
  }

  protected linearTyped(part: number, { value, gesture }: NumberChange): void {
    this.emitPart(part, value, gesture);
  }

  private emitPart(part: number, linear: number, gesture?: string): void {
    this.changed.emit({ value: this.value().map((each, index) => (index === part ? linear : each)), gesture });
  }

  private set(hsv: Hsv): void {
    this.hsv.set(hsv);
    this.changed.emit({ value: srgbFromHsv([hsv[0], hsv[1], hsv[2]]).map(linearFromSrgb), gesture: this.gesture });
  }
}

function share(part: number, whole: number): number {
  return Math.min(Math.max(part / whole, 0), 1);
}
