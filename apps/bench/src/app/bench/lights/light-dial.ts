import { ChangeDetectionStrategy, Component, computed, ElementRef, input, output, viewChild, ViewEncapsulation } from '@angular/core';
import type { OrbitCamera } from '@brelvin/contract';
import { DIAL_HORIZON, dialFromDirection, directionFromDial, type DialPoint } from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';

/** A light on the dial. */
export interface DialLight {
  readonly id: string;
  readonly name: string;
  /** Towards the light, world space, any length. */
  readonly direction: readonly number[];
}

/** A turn of the environment, radians about the vertical. */
export interface TurnChange {
  readonly turn: number;
  readonly gesture?: string;
}

export interface DirectionChange {
  readonly id: string;
  readonly direction: readonly number[];
  readonly gesture?: string;
}

const SIZE = 128;
const RADIUS = 52;
/** Of the ring that turns the environment, in its middle. */
const RING = 59;
/** A press farther out than this, as a part of the radius, takes the ring. */
const RING_FROM = 1.05;
const TURN_STEP = Math.PI / 36;
const KEY_STEP = 0.04;
/** A press this near to a dot, as a part of the radius, takes that light. */
const NEAR = 0.16;

/** The sphere of directions seen from the camera; drag a dot and its light goes there. */
@Component({
  selector: 'brelvin-light-dial',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './light-dial.css',
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
      (pointerup)="letGo()"
      (pointercancel)="letGo()"
      (keydown)="key($event)"
    >
      @if (turn() !== undefined) {
        <circle class="dial-ring" [attr.r]="ring"><title>Drag the ring: the environment turns.</title></circle>
        <path class="dial-ring-mark" [attr.d]="ringMark" [attr.transform]="'rotate(' + ringDegrees() + ')'" />
      }
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
    @if (turn() !== undefined) {
      <button
        type="button"
        class="sr-only"
        role="slider"
        aria-label="Rotation of the environment. Arrow keys turn it by five degrees."
        [attr.aria-valuenow]="degrees()"
        aria-valuemin="-180"
        aria-valuemax="180"
        [attr.aria-valuetext]="degrees() + '°'"
        (keydown)="turnKey($event)"
      ></button>
    }
  `,
})
export class LightDial {
  readonly camera = input.required<OrbitCamera>();
  readonly lights = input.required<readonly DialLight[]>();
  readonly chosen = input.required<string>();
  readonly changed = output<DirectionChange>();
  readonly chose = output<string>();
  /** Of the environment, radians; without one there is no ring. */
  readonly turn = input<number>();
  readonly turned = output<TurnChange>();

  protected readonly size = SIZE;
  protected readonly radius = RADIUS;
  protected readonly ring = RING;
  protected readonly ringMark = `M0 ${-RING - 4}L4 ${-RING + 3}L-4 ${-RING + 3}Z`;
  protected readonly horizon = DIAL_HORIZON;
  protected readonly box = `${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`;
  protected readonly cross = `M${-RADIUS} 0H${RADIUS}M0 ${-RADIUS}V${RADIUS}`;
  private readonly dial = viewChild.required<ElementRef<SVGElement>>('dial');
  protected held?: { readonly id: string; readonly gesture: string };
  private turning?: { readonly gesture: string; readonly angle: number; readonly turn: number };

  /** Where the middle of the environment is, as the camera sees it: clockwise from straight ahead. */
  protected readonly ringDegrees = computed(() => ((this.camera().azimuth - (this.turn() ?? 0)) * 180) / Math.PI);
  protected readonly degrees = computed(() => Math.round((wrapped(this.turn() ?? 0) * 180) / Math.PI));

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
    const turn = this.turn();
    if (turn !== undefined && Math.hypot(at.x, at.y) > RING_FROM) {
      this.turning = { gesture: newId(), angle: Math.atan2(at.x, at.y), turn };
      this.dial().nativeElement.setPointerCapture(event.pointerId);
      return;
    }
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
    if (this.turning) {
      const { x, y } = this.placeOf(event);
      const { turn, angle, gesture } = this.turning;
      this.turned.emit({ turn: rounded(wrapped(turn - (Math.atan2(x, y) - angle))), gesture });
      return;
    }
    if (this.held) this.put(this.held.id, this.placeOf(event), this.held.gesture);
  }

  protected letGo(): void {
    this.held = undefined;
    this.turning = undefined;
  }

  protected turnKey(event: KeyboardEvent): void {
    const step = { ArrowLeft: TURN_STEP, ArrowDown: TURN_STEP, ArrowRight: -TURN_STEP, ArrowUp: -TURN_STEP }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    this.turned.emit({ turn: rounded(wrapped((this.turn() ?? 0) + step)), gesture: 'environment-keys' });
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
    this.changed.emit({ id, direction: direction.map(rounded), gesture });
  }
}

function isBehind({ x, y }: DialPoint): boolean {
  return Math.hypot(x, y) > DIAL_HORIZON + 0.005;
}

function rounded(value: number): number {
  return Math.round(value * 1e6) / 1e6;
}

/** The same turn between −π and π. */
function wrapped(turn: number): number {
  return turn - Math.round(turn / (2 * Math.PI)) * 2 * Math.PI;
}
