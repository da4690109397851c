import { ChangeDetectionStrategy, Component, computed, ElementRef, input, output, viewChild } from '@angular/core';
import { DIAL_HORIZON, dialFromDirection, directionFromDial, type DialPoint, type OrbitCamera } from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';

/** A light on the dial. */
export interface DialLight {
  readonly id: string;
  readonly name: string;
  /** Towards the light, world space, any length. */
  readonly direction: readonly number[];
}

export interface DirectionChange {
  readonly id: string;
  readonly direction: readonly number[];
  readonly gesture?: string;
}

const SIZE = 128;
const RADIUS = 58;
const KEY_STEP = 0.04;
/** A press this near to a dot, as a part of the radius, takes that light. */
const NEAR = 0.16;

/** The sphere of directions seen from the camera; drag a dot and its light goes there. */
@Component({
  selector: 'brelvin-light-dial',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'block shrink-0' },
  template: `
    <svg
      #dial
      class="light-dial"
      role="slider"
      tabindex="0"
      aria-label="Light dial: where the chosen light stands, seen from the camera. Arrow keys move it."
      [attr.aria-valuetext]="spoken()"
      [attr.aria-valuenow]="0"
      [attr.width]="size"
      [attr.height]="size"
      [attr.viewBox]="box"
      (pointerdown)="down($event)"
      (pointermove)="move($event)"
      (pointerup)="held = undefined"
      (pointercancel)="held = undefined"
      (keydown)="key($event)"
    >
      <title>Drag a dot: its light goes there. The inner disc is light from in front, the ring light from behind.</title>
      <circle class="dial-behind" [attr.r]="radius" />
      <circle class="dial-front" [attr.r]="radius * horizon" />
      <path class="dial-cross" [attr.d]="cross" />
      @for (dot of dots(); track dot.id) {
        @if (dot.id === chosen()) {
          <line class="dial-ray" x1="0" y1="0" [attr.x2]="dot.x" [attr.y2]="dot.y" />
        }
        <circle
          class="dial-dot"
          [class.dial-dot-behind]="dot.behind"
          [class.dial-dot-other]="dot.id !== chosen()"
          [attr.data-light]="dot.id"
          [attr.r]="dot.id === chosen() ? 6 : 4"
          [attr.cx]="dot.x"
          [attr.cy]="dot.y"
        >
          <title>{{ dot.name }}</title>
        </circle>
      }
    </svg>
  `,
})
export class LightDial {
  readonly camera = input.required<OrbitCamera>();
  readonly lights = input.required<readonly DialLight[]>();
  readonly chosen = input.required<string>();
  readonly changed = output<DirectionChange>();
  readonly chose = output<string>();

  protected readonly size = SIZE;
  protected readonly radius = RADIUS;
  protected readonly horizon = DIAL_HORIZON;
  protected readonly box = `${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`;
  protected readonly cross = `M${-RADIUS} 0H${RADIUS}M0 ${-RADIUS}V${RADIUS}`;
  private readonly dial = viewChild.required<ElementRef<SVGElement>>('dial');
  protected held?: { readonly id: string; readonly gesture: string };

  private readonly places = computed(() =>
    this.lights().map((light) => ({ ...light, place: dialFromDirection(this.camera(), light.direction) })),
  );
  /** The chosen light last, so that it lies on top. */
  protected readonly dots = computed(() =>
    this.places()
      .map(({ id, name, place }) => ({ id, name, x: place.x * RADIUS, y: -place.y * RADIUS, behind: isBehind(place) }))
      .sort((a, b) => Number(a.id === this.chosen()) - Number(b.id === this.chosen())),
  );
  protected readonly spoken = computed(() => {
    const light = this.places().find(({ id }) => id === this.chosen());
    if (!light) return 'The chosen light has no direction';
    const { x, y } = light.place;
    const side = Math.abs(x) < 0.1 ? '' : x > 0 ? ' right' : ' left';
    const height = Math.abs(y) < 0.1 ? '' : y > 0 ? ' above' : ' below';
    return `${light.name} from ${isBehind(light.place) ? 'behind' : 'in front'}${height}${side}`;
  });

  protected down(event: PointerEvent): void {
    const at = this.placeOf(event);
    const near = this.places()
      .map(({ id, place }) => ({ id, away: Math.hypot(place.x - at.x, place.y - at.y) }))
      .filter(({ away }) => away < NEAR)
      .sort((a, b) => a.away - b.away)[0];
    const id = near?.id ?? this.chosen();
    if (!this.lights().some((light) => light.id === id)) return;
    this.chose.emit(id);
    this.held = { id, gesture: newId() };
    this.dial().nativeElement.setPointerCapture(event.pointerId);
    // A press on a dot takes it; anywhere else the light comes.
    if (!near) this.move(event);
  }

  protected move(event: PointerEvent): void {
    if (this.held) this.put(this.held.id, this.placeOf(event), this.held.gesture);
  }

  private placeOf(event: PointerEvent): DialPoint {
    const box = this.dial().nativeElement.getBoundingClientRect();
    const unit = (RADIUS / SIZE) * box.width;
    return { x: (event.clientX - box.left - box.width / 2) / unit, y: -(event.clientY - box.top - box.height / 2) / unit };
  }

  protected key(event: KeyboardEvent): void {
    const steps: Record<string, readonly [number, number]> = {
      ArrowLeft: [-KEY_STEP, 0],
      ArrowRight: [KEY_STEP, 0],
      ArrowUp: [0, KEY_STEP],
      ArrowDown: [0, -KEY_STEP],
    };
    const step = steps[event.key];
    const light = this.places().find(({ id }) => id === this.chosen());
    if (!step || !light) return;
    event.preventDefault();
    event.stopPropagation();
    this.put(light.id, { x: light.place.x + step[0], y: light.place.y + step[1] }, 'light-keys');
  }

  private put(id: string, place: DialPoint, gesture: string): void {
    const direction = directionFromDial(this.camera(), place);
    this.changed.emit({ id, direction: direction.map((each) => Math.round(each * 1e6) / 1e6), gesture });
  }
}

function isBehind({ x, y }: DialPoint): boolean {
  return Math.hypot(x, y) > DIAL_HORIZON + 0.005;
}
