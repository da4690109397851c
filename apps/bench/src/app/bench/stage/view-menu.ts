import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, signal, ViewEncapsulation } from '@angular/core';
import type { OrbitCamera, SavedView, StageSet } from '@brelvin/contract';
import { DIRECTIONS, lookFrom, putView, WHOLE_PICTURE, type DebugView, type Edit } from '@brelvin/core';
import { NumberField } from '../../shared/controls/number-field';
import { newId } from '../../shared/documents/new-id';
import { Icon } from '../../shared/icons/icon';
import { DeviceField } from './device-field';
import { StillFields } from './still-fields';
import { TURN_SPEED, ViewSettings } from './view-settings';
import { Popover } from '../../shared/controls/popover';

/** What can be seen instead of the picture, and what its colours mean. */
export const VIEW_WORDS: Readonly<Record<DebugView, readonly [string, string]>> = {
  none: ['the picture', ''],
  normals: ['normals', 'World space: red +x, green +y, blue +z; grey is 0.'],
  tangents: ['tangents', 'World space, along u: red +x, green +y, blue +z; grey is 0.'],
  uv: ['UV', 'Red grows with u, green with v; lines every tenth.'],
  secondUv: ['second UV', 'Red grows with u, green with v; lines every tenth.'],
  position: ['position', 'World space, metres: each colour starts again at every whole metre.'],
  depth: ['depth', 'White is nearest to you, black farthest.'],
  facing: ['facing', 'Fronts are plain, backs are hatched.'],
  rings: ['distance to the light', 'A white line every metre from the chosen light, a dark one every quarter. A sun has no place.'],
  marks: ['out of range', 'Blue: below 0. Red: above 1. Yellow check: no number.'],
  shadow: ['shadow', 'White where all lights get through, black where none does.'],
  occlusion: ['ambient occlusion', 'White where ambient light is whole, darker where surfaces are near each other.'],
  parts: ['parts', 'Each part of a mesh, and each region of a field, has a colour of its own; every mesh begins anew.'],
  steps: ['steps per pixel', 'Blue: few; yellow: the end of the range or more. Meshes are grey.'],
  wires: ['wireframe', 'The edges of the triangles instead of the surface.'],
  wiresOver: ['wireframe overlay', 'The edges of the triangles over the surface.'],
};
const DEGREES = 180 / Math.PI;

/** What is seen of the surface, from where, and through which lens. */
@Component({
  selector: 'brelvin-view-menu',
  imports: [DeviceField, Icon, NumberField, Popover, StillFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './view-menu.css',
  template: `
    <button
      type="button"
      class="bar-button"
      aria-haspopup="dialog"
      [attr.aria-expanded]="open()"
      title="What is seen, from where, through which lens. F8 goes to the last special view and back."
      (click)="open.set(!open())"
    >
      view
      @if (settings.inspection().view !== 'none') {
        <span class="bar-view">{{ words[settings.inspection().view][0] }}</span>
      }
      <brelvin-icon name="down" />
    </button>
    <brelvin-popover label="View" look="view-panel" [anchor]="anchor()" place="left of the stage" [(open)]="open">
      <ng-template>
        <div class="view-list" role="radiogroup" aria-label="What is seen">
          @for (view of views; track view) {
            <button
              type="button"
              class="mesh-choice"
              role="radio"
              [attr.data-view]="view"
              [attr.aria-checked]="settings.inspection().view === view"
              [title]="words[view][1]"
              (click)="settings.see(view)"
            >
              {{ words[view][0] }}
            </button>
          }
        </div>
        <div class="view-side">
          @if (settings.inspection().view === 'steps') {
            <span class="field-label">Steps up to</span>
            <brelvin-number
              label="Steps up to"
              help="So many steps of a line of sight through a field, or more, are yellow."
              [value]="settings.inspection().mostSteps"
              [range]="{ low: 1, high: 1024, whole: true }"
              (changed)="settings.scaleSteps($event.value)"
              (resetAsked)="settings.scaleSteps(usualSteps)"
            />
          }
          <span class="field-label">From</span>
          <div class="choices">
            @for (from of directions; track from) {
              <button type="button" class="choice" (click)="looked.emit(turned(from))">{{ from }}</button>
            }
          </div>
          <span class="field-label">Field of view</span>
          <brelvin-number
            label="Field of view"
            help="From the lower to the upper edge of the picture."
            [value]="degrees()"
            [range]="{ low: 5, high: 100 }"
            suffix="°"
            (changed)="widen($event.value)"
            (resetAsked)="widen(31.5)"
          />
          <div class="choices">
            <button
              type="button"
              class="choice-alone"
              [attr.aria-pressed]="camera().orthographic ?? false"
              title="Without perspective"
              (click)="looked.emit(flattened())"
            >
              orthographic
            </button>
            <button
              type="button"
              class="choice-alone"
              [attr.aria-pressed]="settings.turning()"
              (click)="settings.turning.set(!settings.turning())"
            >
              turntable
            </button>
            @if (settings.turning()) {
              <brelvin-number
                class="turn-speed"
                label="Speed of the turntable"
                help="Degrees a second; below 0 the other way round."
                suffix="°"
                [value]="settings.turnSpeed()"
                [range]="{ low: -90, high: 90, open: 'both' }"
                (changed)="settings.turnSpeed.set($event.value)"
                (resetAsked)="settings.turnSpeed.set(usualSpeed)"
              />
            }
            <button
              type="button"
              class="choice-alone"
              [attr.aria-pressed]="settings.handlesShown()"
              title="Show where the lights stand"
              (click)="settings.handlesShown.set(!settings.handlesShown())"
            >
              light handles
            </button>
          </div>
          <span class="field-label">Saved views</span>
          @for (entry of saved(); track entry[0]) {
            <span class="kept-view">
              <button type="button" class="text-button" (click)="looked.emit(entry[1].camera)">{{ entry[1].name }}</button>
              <button type="button" class="text-button" [attr.aria-label]="'Delete ' + entry[1].name" (click)="forget(entry[0])">
                <brelvin-icon name="close" />
              </button>
            </span>
          }
          <form class="kept-view" (submit)="$event.preventDefault(); keep(name)">
            <input #name class="text-input" maxlength="120" placeholder="name of this view" aria-label="Name of this view" />
            <button type="submit" class="bar-button">keep</button>
          </form>
          <brelvin-still-fields (asked)="open.set(false)" />
          <brelvin-device-field />
        </div>
      </ng-template>
    </brelvin-popover>
  `,
})
export class ViewMenu {
  readonly camera = input.required<OrbitCamera>();
  readonly set = input.required<StageSet>();
  readonly looked = output<OrbitCamera>();
  readonly edited = output<{ edit: Edit }>();

  protected readonly settings = inject(ViewSettings);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly open = signal(false);
  protected readonly usualSpeed = TURN_SPEED;
  protected readonly usualSteps = WHOLE_PICTURE.mostSteps;
  protected readonly words = VIEW_WORDS;
  protected readonly views = Object.keys(VIEW_WORDS) as DebugView[];
  protected readonly directions = Object.keys(DIRECTIONS) as (keyof typeof DIRECTIONS)[];
  protected readonly degrees = computed(() => Math.round(this.camera().fieldOfView * DEGREES * 10) / 10);
  protected readonly saved = computed(() => Object.entries(this.set().views).sort(([, a], [, b]) => a.order - b.order));

  /** The left end of the bar: the panel stands beside the Stage, never over it. */
  protected anchor(): HTMLElement {
    return this.host.nativeElement.parentElement ?? this.host.nativeElement;
  }

  protected turned(from: keyof typeof DIRECTIONS): OrbitCamera {
    return lookFrom(this.camera(), from);
  }

  /** Another lens; what is looked at stays as large as it is. */
  protected widen(degrees: number): void {
    const camera = this.camera();
    const fieldOfView = Math.min(Math.max(degrees, 1), 150) / DEGREES;
    const distance = (camera.distance * Math.tan(camera.fieldOfView / 2)) / Math.tan(fieldOfView / 2);
    this.looked.emit({ ...camera, fieldOfView, distance });
  }

  protected flattened(): OrbitCamera {
    const camera = this.camera();
    return { ...camera, orthographic: !camera.orthographic };
  }

  protected keep(field: HTMLInputElement): void {
    const name = field.value.trim() || `View ${this.saved().length + 1}`;
    const order = Math.max(0, ...this.saved().map(([, view]) => view.order)) + 1;
    const view: SavedView = { name, order, camera: this.camera() };
    this.edited.emit({ edit: putView(newId(), view) });
    field.value = '';
  }

  protected forget(id: string): void {
    this.edited.emit({ edit: putView(id, undefined) });
  }
}
