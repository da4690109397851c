import { ChangeDetectionStrategy, Component, computed, input, output, signal, ViewEncapsulation } from '@angular/core';
import { hexFromLinear } from '@brelvin/core';
import { newId } from '../documents/new-id';
import { ColourPicker, type ColourChange } from './colour-picker';
import { addStop, colourAt, MOST_STOPS, moveStop, stopsFromValue, valueFromStops, type GradientStop } from './gradient-stops';
import { Popover } from './popover';

const BAR_STEPS = 24;

/** A gradient's bar that opens its editor: click the bar to add a stop, drag stops, pick their colours. */
@Component({
  selector: 'brelvin-gradient',
  imports: [ColourPicker, Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './gradient-field.css',
  host: { class: 'gradient-field' },
  template: `
    <button
      type="button"
      class="gradient-bar"
      #origin
      [attr.aria-label]="label() + ', ' + stops().length + ' stops'"
      [attr.aria-expanded]="open()"
      title="Click to edit the stops"
      [style.background-image]="bar()"
      (click)="open.set(!open())"
      (pointerdown)="$event.stopPropagation()"
    ></button>
    <brelvin-popover [label]="label()" look="gradient-editor" [anchor]="origin" role="group" [(open)]="open">
      <ng-template>
        <div #track class="gradient-track" [style.background-image]="bar()" (pointerdown)="addAt($event, track)">
          @for (stop of stops(); track $index; let index = $index) {
            <button
              type="button"
              class="gradient-stop"
              [class.chosen]="index === chosen()"
              [style.left.%]="stop.at * 100"
              [style.background-color]="hexOf(stop)"
              [attr.aria-label]="'Stop ' + (index + 1) + ' at ' + percent(stop.at) + ' %. Arrow keys move it, Delete removes it.'"
              (pointerdown)="grab($event, index)"
              (pointermove)="drag($event, track)"
              (pointerup)="held = undefined"
              (focus)="chosen.set(index)"
              (keydown)="stopKey($event, index)"
            ></button>
          }
        </div>
        <p class="hint">
          {{
            stops().length < most ? 'Click the bar to add a stop. Delete removes the chosen one.' : 'Eight stops, the most there can be.'
          }}
        </p>
        @if (stops()[chosen()]; as stop) {
          <brelvin-colour-picker label="Colour of the stop" [value]="stop.colour" (changed)="recolour($event)" />
        }
      </ng-template>
    </brelvin-popover>
  `,
})
export class GradientField {
  readonly value = input.required<readonly number[]>();
  readonly label = input.required<string>();
  readonly changed = output<ColourChange>();

  protected readonly open = signal(false);
  protected readonly chosen = signal(0);
  protected readonly most = MOST_STOPS;
  protected readonly stops = computed(() => stopsFromValue(this.value()));
  /** Sampled finely, because a browser mixes encoded colours and the shader mixes light. */
  protected readonly bar = computed(() => {
    const colours = Array.from({ length: BAR_STEPS + 1 }, (_, index) => hexFromLinear(colourAt(this.stops(), index / BAR_STEPS)));
    return `linear-gradient(to right, ${colours.join(', ')})`;
  });
  protected held?: { index: number; gesture: string };

  protected hexOf(stop: GradientStop): string {
    return hexFromLinear(stop.colour);
  }

  protected percent(share: number): number {
    return Math.round(share * 100);
  }

  protected addAt(event: PointerEvent, track: HTMLElement): void {
    const added = addStop(this.stops(), place(event, track));
    if (!added) return;
    this.chosen.set(added.index);
    this.emit(added.stops);
  }

  protected grab(event: PointerEvent, index: number): void {
    event.stopPropagation();
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.chosen.set(index);
    this.held = { index, gesture: newId() };
  }

  protected drag(event: PointerEvent, track: HTMLElement): void {
    if (this.held) this.emit(moveStop(this.stops(), this.held.index, place(event, track)), this.held.gesture);
  }

  protected stopKey(event: KeyboardEvent, index: number): void {
    const stops = this.stops();
    const move = { ArrowLeft: -0.01, ArrowRight: 0.01 }[event.key];
    if (move !== undefined) this.emit(moveStop(stops, index, (stops[index]?.at ?? 0) + move));
    else if ((event.key === 'Delete' || event.key === 'Backspace') && stops.length > 2) {
      this.chosen.set(Math.max(0, index - 1));
      this.emit(stops.filter((_, each) => each !== index));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected recolour({ value, gesture }: ColourChange): void {
    const [red = 0, green = 0, blue = 0] = value;
    this.emit(
      this.stops().map((stop, index) => (index === this.chosen() ? { ...stop, colour: [red, green, blue] } : stop)),
      gesture,
    );
  }

  private emit(stops: readonly GradientStop[], gesture?: string): void {
    this.changed.emit({ value: valueFromStops(stops), gesture });
  }
}

function place(event: PointerEvent, track: HTMLElement): number {
  const box = track.getBoundingClientRect();
  return Math.min(Math.max((event.clientX - box.left) / box.width, 0), 1);
}
