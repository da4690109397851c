import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { MOST_LIGHTS_IN_RIG, type LightKind, type RigLight } from '@brelvin/contract';
import { addLight, isPunctual, lightsOf, MOST_LIGHTS, newLight, removeLight, setEnvironment, setLight } from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import { Icon } from '../../shared/icons/icon';
import { LightDial, type DialLight, type DirectionChange, type TurnChange } from './light-dial';
import { LightFields } from './light-fields';
import { RigEditor } from '../editors/rig-editor';
import { StageBinding } from '../stage/stage-binding';
import type { PanelEntry } from '../registry/panel-entry';

const ADDABLE: readonly (readonly [LightKind, string])[] = [
  ['point', 'point'],
  ['spot', 'spot'],
  ['sun', 'sun'],
  ['hemisphere', 'hemisphere'],
  ['ambient', 'ambient'],
];

/** The light rig: its dial, its lights, and what the chosen one can be told. */
@Component({
  selector: 'brelvin-light-panel',
  imports: [Icon, LightDial, LightFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './light-panel.css',
  host: { class: 'light-panel' },
  template: `
    <brelvin-light-dial
      [camera]="camera()"
      [lights]="dialLights()"
      [chosen]="editor.chosen()"
      (chose)="editor.choose($event)"
      (changed)="turn($event)"
      [turn]="editor.rig().environment?.turn"
      (turned)="turnEnvironment($event)"
    />
    <div class="light-list">
      <ul aria-label="Lights">
        @for (entry of lights(); track entry[0]) {
          <li class="light-entry" [class.chosen]="entry[0] === editor.chosen()">
            <button
              type="button"
              class="light-switch"
              role="switch"
              [attr.aria-checked]="entry[1].on"
              [attr.aria-label]="entry[1].name + ' on'"
              [title]="entry[1].on ? 'Switch it off' : 'Switch it on'"
              (click)="toggle(entry[0], entry[1])"
            >
              {{ entry[1].on ? '●' : '○' }}
            </button>
            <button
              type="button"
              class="light-name"
              [attr.aria-pressed]="entry[0] === editor.chosen()"
              [attr.data-light]="entry[0]"
              [title]="entry[1].name + (dark().has(entry[0]) ? ': eight lights shine already, this one stays dark.' : ': choose it')"
              (click)="editor.choose(entry[0])"
            >
              {{ entry[1].name }}{{ dark().has(entry[0]) ? ' (dark)' : '' }}
            </button>
            @if (canRemove(entry[0])) {
              <button
                type="button"
                class="text-button"
                [attr.aria-label]="'Remove ' + entry[1].name"
                title="Remove it"
                (click)="remove(entry[0])"
              >
                <brelvin-icon name="close" />
              </button>
            }
          </li>
        }
      </ul>
      <select #kind class="text-input" aria-label="Add a light" title="Add a light" (change)="add($any(kind.value)); kind.value = ''">
        <option value="">add …</option>
        @for (each of addable; track each[0]) {
          <option [value]="each[0]">{{ each[1] }}</option>
        }
      </select>
      @if (full()) {
        <p class="hint" role="status">A rig holds {{ most }} lights. Remove one first.</p>
      }
    </div>
    <brelvin-light-fields />
  `,
})
export class LightPanel {
  protected readonly camera = inject(StageBinding).camera;
  protected readonly editor = inject(RigEditor);
  protected readonly addable = ADDABLE;
  protected readonly most = MOST_LIGHTS_IN_RIG;
  protected readonly lights = computed(() => lightsOf(this.editor.rig()));
  protected readonly full = computed(() => Object.keys(this.editor.rig().lights).length >= MOST_LIGHTS_IN_RIG);
  /** Lights that are on and still do not shine, because eight do already. */
  protected readonly dark = computed(
    () =>
      new Set(
        this.lights()
          .filter(([, light]) => light.on && isPunctual(light))
          .slice(MOST_LIGHTS)
          .map(([id]) => id),
      ),
  );
  protected readonly dialLights = computed((): DialLight[] => {
    const { target } = this.camera();
    return this.editor.standing().map(({ id, light, direction, position }) => ({
      id,
      name: light.name,
      direction: light.kind === 'sun' ? direction : position.map((each, axis) => each - (target[axis] ?? 0)),
    }));
  });

  /** A sun turns; other lights go round what the camera looks at, as far away as they were. */
  protected turnEnvironment({ turn, gesture }: TurnChange): void {
    this.editor.do(setEnvironment('turn', turn, 'Turn the environment'), gesture);
  }

  protected turn({ id, direction, gesture }: DirectionChange): void {
    const light = this.lights().find(([each]) => each === id)?.[1];
    if (!light) return;
    if (light.kind === 'sun') {
      this.editor.do(setLight(id, 'direction', direction, `Move ${light.name}`), gesture);
      return;
    }
    const { target } = this.camera();
    const away = Math.max(Math.hypot(...light.position.map((each, axis) => each - (target[axis] ?? 0))), 0.1);
    const position = direction.map((each, axis) => rounded(each * away + (target[axis] ?? 0)));
    const moved = setLight(id, 'position', position, `Move ${light.name}`);
    // A spot goes on shining at what the camera looks at.
    const aimed = light.kind === 'spot' ? setLight(id, 'direction', direction, '').changes : [];
    this.editor.do({ label: moved.label, changes: [...moved.changes, ...aimed] }, gesture);
  }

  protected toggle(id: string, { on, name }: RigLight): void {
    this.editor.do(setLight(id, 'on', !on, `Switch ${name} ${on ? 'off' : 'on'}`));
  }

  protected add(kind: LightKind | ''): void {
    if (!kind || this.full()) return;
    const id = newId();
    const others = this.lights();
    const order = Math.max(0, ...others.map(([, light]) => light.order)) + 1;
    const base = newLight(kind);
    const count = others.filter(([, light]) => light.kind === kind).length;
    this.editor.do(addLight(id, { ...base, order, name: count > 0 ? `${base.name} ${count + 1}` : base.name }));
    this.editor.choose(id);
  }

  protected canRemove(id: string): boolean {
    return Object.hasOwn(this.editor.rig().lights, id);
  }

  protected remove(id: string): void {
    this.editor.do(removeLight(this.editor.rig(), id));
  }
}

function rounded(value: number): number {
  return Math.round(value * 1e4) / 1e4;
}

export const LIGHT_TAB: PanelEntry = { id: 'lights', tab: () => () => ({ words: 'light dial' }), view: LightPanel };
