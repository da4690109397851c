import { ChangeDetectionStrategy, Component, computed, inject, input, signal, ViewEncapsulation } from '@angular/core';
import type { OrbitCamera } from '@brelvin/contract';
import { hexFromLinear, pan, placeInPicture, setLight, type StandingLight } from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import { RigEditor } from '../editors/rig-editor';

interface Handle {
  readonly id: string;
  readonly name: string;
  readonly kind: StandingLight['light']['kind'];
  readonly x: number;
  readonly y: number;
  /** Where it shines to, on the screen. */
  readonly ray: string;
  readonly chosen: boolean;
  /** Of its light, as bright as a screen has it: `#rrggbb`. */
  readonly colour: string;
}

/** How far from what the camera looks at a sun's handle stands, as a part of the camera's distance. */
const SUN_AWAY = 0.22;

/** Where the lights stand, drawn over the picture; press one to choose it, drag it to move its light. */
@Component({
  selector: 'brelvin-light-handles',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './light-handles.css',
  host: { class: 'light-handles' },
  template: `
    <svg [attr.width]="width()" [attr.height]="height()" aria-hidden="true">
      @for (handle of handles(); track handle.id) {
        <path class="handle-ray" [class.handle-chosen]="handle.chosen" [attr.d]="handle.ray" />
        <g
          class="handle"
          [class.handle-chosen]="handle.chosen"
          [style.fill]="handle.colour"
          [attr.data-light]="handle.id"
          [attr.transform]="'translate(' + handle.x + ' ' + handle.y + ')'"
          (pointerdown)="down($event, handle.id)"
          (pointermove)="move($event)"
          (pointerup)="held.set(undefined)"
          (pointercancel)="held.set(undefined)"
        >
          <title>{{ handle.name }}: drag to move it</title>
          <circle class="handle-reach" r="13" />
          @switch (handle.kind) {
            @case ('sun') {
              <path d="M-8 0H8M0 -8V8M-5.600 -5.600 5.600 5.600M5.600 -5.600-5.600 5.600" />
              <circle r="4" />
            }
            @case ('spot') {
              <path d="M-4 -6H4L8 6H-8Z" />
            }
            @default {
              <circle r="5" />
              <circle r="8.500" class="handle-ring" />
            }
          }
        </g>
      }
    </svg>
  `,
})
export class LightHandles {
  readonly camera = input.required<OrbitCamera>();
  /** CSS pixels of the picture. */
  readonly width = input.required<number>();
  readonly height = input.required<number>();

  private readonly editor = inject(RigEditor);
  protected readonly held = signal<{ readonly id: string; readonly gesture: string; x: number; y: number } | undefined>(undefined);

  protected readonly handles = computed((): Handle[] =>
    this.editor.standing().flatMap((standing): Handle[] => {
      const { id, light } = standing;
      const place = this.placeOf(standing);
      const at = this.onScreen(place);
      if (!at) return [];
      const goal = light.kind === 'sun' ? this.camera().target : place.map((each, axis) => each - (standing.direction[axis] ?? 0) * 0.8);
      const to = light.kind === 'point' ? undefined : this.onScreen(goal);
      const ray = to ? `M${at.x} ${at.y}L${at.x + (to.x - at.x) * 0.5} ${at.y + (to.y - at.y) * 0.5}` : '';
      return [{ id, name: light.name, kind: light.kind, ...at, ray, chosen: id === this.editor.chosen(), colour: hueOf(standing) }];
    }),
  );

  /** A sun is nowhere: its handle stands in its direction, near what is looked at. */
  private placeOf({ light, direction, position }: StandingLight): readonly number[] {
    if (light.kind !== 'sun') return position;
    const { target, distance } = this.camera();
    return target.map((each, axis) => each + (direction[axis] ?? 0) * distance * SUN_AWAY);
  }

  private onScreen(point: readonly number[]): { x: number; y: number } | undefined {
    if (this.width() < 1 || this.height() < 1) return undefined;
    const { x, y, depth } = placeInPicture(this.camera(), point, this.width() / this.height());
    if (depth <= 0.01 || Math.abs(x) > 1.1 || Math.abs(y) > 1.1) return undefined;
    return { x: Math.round(((x + 1) / 2) * this.width() * 10) / 10, y: Math.round(((1 - y) / 2) * this.height() * 10) / 10 };
  }

  protected down(event: PointerEvent, id: string): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    this.editor.choose(id);
    (event.currentTarget as SVGElement).setPointerCapture(event.pointerId);
    this.held.set({ id, gesture: newId(), x: event.clientX, y: event.clientY });
  }

  /** The light moves in the plane of the picture; a sun turns so that its handle stays under the pointer. */
  protected move(event: PointerEvent): void {
    const held = this.held();
    const standing = held && this.editor.standing().find(({ id }) => id === held.id);
    if (!held || !standing) return;
    const [dx, dy] = [(event.clientX - held.x) / this.height(), (held.y - event.clientY) / this.height()];
    this.held.set({ ...held, x: event.clientX, y: event.clientY });
    const place = this.placeOf(standing);
    const { depth } = placeInPicture(this.camera(), place, 1);
    const moved = pan({ ...this.camera(), target: place, distance: Math.max(depth, 0.01) }, dx, dy).target;
    const { light } = standing;
    if (light.kind === 'sun') {
      const away = moved.map((each, axis) => each - (this.camera().target[axis] ?? 0));
      const length = Math.hypot(...away) || 1;
      const direction = away.map((each) => Math.round((each / length) * 1e6) / 1e6);
      this.editor.do(setLight(held.id, 'direction', direction, `Move ${light.name}`), held.gesture);
    } else {
      // What moves by itself is moved where it stands without its motion.
      const position = light.position.map((each, axis) => Math.round((each + (moved[axis] ?? 0) - (place[axis] ?? 0)) * 1e4) / 1e4);
      this.editor.do(setLight(held.id, 'position', position, `Move ${light.name}`), held.gesture);
    }
  }
}

/** The colour of a light at full brightness: how strong it is, its handle does not tell. */
function hueOf({ colour }: StandingLight): string {
  const most = Math.max(...colour);
  return hexFromLinear(most > 0 ? colour.map((each) => each / most) : [0, 0, 0]);
}
