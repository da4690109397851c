import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, ViewEncapsulation } from '@angular/core';
import type { Json, MeshShape, SetMesh } from '@brelvin/contract';
import { OFFERED_SHAPES, MESH_SHAPES, meshNumber, newMesh, putMesh, type Edit, type MeshNumber } from '@brelvin/core';
import { Choices, type Choice } from '../../shared/controls/choices';
import { NumberField } from '../../shared/controls/number-field';
import { Icon } from '../../shared/icons/icon';
import { MeshShelf } from '../../shared/meshes/mesh-shelf';
import { Notices } from '../../shared/notices/notices';
import { MeshSource, pickedMesh } from '../../shared/picking/mesh-source';
import { Picker } from '../../shared/picking/picker';
import type { PickerEntry } from '../../shared/picking/picker-source';
import { Popover } from '../../shared/controls/popover';
import { FormulaField } from './formula-field';

const SHADINGS: readonly Choice<boolean>[] = [
  { value: true, words: 'Smooth', help: 'Normals are shared across edges' },
  { value: false, words: 'Flat', help: 'Every face has a normal of its own' },
];

/** Below the picture: which mesh, its numbers, and the view. */
@Component({
  selector: 'brelvin-mesh-bar',
  imports: [Choices, FormulaField, Icon, NumberField, Picker, Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './mesh-bar.css',
  host: { class: 'mesh-bar', '[class.mesh-bar-full]': 'moves() || lightsMove()' },
  template: `
    <button
      type="button"
      class="bar-button"
      #origin
      aria-haspopup="dialog"
      [attr.aria-expanded]="open()"
      (click)="open.set(!open())"
      title="Choose the mesh and its numbers"
    >
      <brelvin-icon [name]="mesh().shape" /> <span class="bar-word">mesh:</span>
      {{ mesh().source?.file ?? shapes[mesh().shape].label.toLowerCase() }}
      <brelvin-icon name="down" />
    </button>
    <span class="flex-1"></span>
    @if (moves()) {
      <button
        type="button"
        class="bar-button"
        [attr.aria-pressed]="playing()"
        (click)="playToggled.emit()"
        [title]="playing() ? 'Stop the Stage’s clock' : 'Let the Stage’s clock run'"
      >
        <brelvin-icon [name]="playing() ? 'pause' : 'play'" /> time
      </button>
    }
    @if (lightsMove()) {
      <button
        type="button"
        class="bar-button"
        [attr.aria-pressed]="lightsPlaying()"
        (click)="lightsToggled.emit()"
        [title]="lightsPlaying() ? 'Let the lights stand still; all else goes on' : 'Let the lights move'"
      >
        <brelvin-icon [name]="lightsPlaying() ? 'pause' : 'play'" /> lights
      </button>
    }
    <ng-content />
    <button type="button" class="bar-button" (click)="framed.emit()" title="Bring the whole mesh into the picture (F)">
      <brelvin-icon name="frame" /> <span class="bar-word">frame</span>
    </button>
    <button
      type="button"
      class="bar-button"
      [attr.aria-pressed]="alone()"
      [title]="alone() ? 'Back to the Bench (F9)' : 'Give the picture the whole window (F9)'"
      (click)="aloneToggled.emit()"
    >
      alone
    </button>
    <brelvin-popover label="Mesh" look="mesh-panel" [anchor]="origin" place="left of the stage" [(open)]="open">
      <ng-template>
        <div class="mesh-list" role="radiogroup" aria-label="Mesh">
          @for (shape of list; track shape) {
            <button type="button" class="mesh-choice" role="radio" [attr.aria-checked]="mesh().shape === shape" (click)="choose(shape)">
              <brelvin-icon [name]="shape" /> {{ shapes[shape].label }}
            </button>
          }
          <brelvin-picker name="of the workspace …" [source]="meshSource" (chosen)="pick($event)" />
        </div>
        <div class="mesh-numbers">
          @for (spec of numbers(); track spec.name) {
            <span class="field-label">{{ spec.label }}</span>
            <brelvin-number
              [label]="spec.label"
              [value]="valueOf(spec)"
              [range]="spec"
              (changed)="set(spec, $event.value, $event.gesture)"
              (resetAsked)="reset(spec)"
            />
          }
          @if (hasFormula()) {
            <brelvin-formula-field
              [meshId]="meshId()"
              [mesh]="mesh()"
              (typed)="emit('Formula of ' + mesh().name, ['formula'], $event, 'formula')"
              (left)="open.set(false)"
            />
          }
          @if (!mesh().source && mesh().shape !== 'field') {
            <span class="field-label">Shading</span>
            <brelvin-choices label="Shading" [options]="shadings" [value]="mesh().smooth" (chosen)="setSmooth($event)" />
          }
        </div>
      </ng-template>
    </brelvin-popover>
  `,
})
export class MeshBar {
  readonly meshId = input.required<string>();
  readonly mesh = input.required<SetMesh>();
  readonly moves = input(false);
  readonly playing = input(true);
  readonly edited = output<{ edit: Edit; gesture?: string }>();
  readonly framed = output<void>();
  readonly playToggled = output<void>();
  readonly lightsMove = input(false);
  readonly lightsPlaying = input(true);
  readonly lightsToggled = output<void>();
  readonly alone = input(false);
  readonly aloneToggled = output<void>();

  private readonly notices = inject(Notices);
  private readonly shelf = inject(MeshShelf);
  protected readonly meshSource = inject(MeshSource);
  protected readonly open = signal(false);
  protected readonly shapes = MESH_SHAPES;
  protected readonly shadings = SHADINGS;
  protected readonly list = OFFERED_SHAPES;
  protected readonly hasFormula = computed(() => MESH_SHAPES[this.mesh().shape].formula !== undefined);
  protected readonly numbers = computed(() => MESH_SHAPES[this.mesh().shape].numbers);

  protected valueOf(spec: MeshNumber): number {
    return meshNumber(spec, this.mesh().numbers[spec.name]);
  }

  protected choose(shape: MeshShape): void {
    if (shape !== this.mesh().shape) this.put(shape, MESH_SHAPES[shape].label);
  }

  protected async pick(entry: PickerEntry): Promise<void> {
    const picked = pickedMesh(entry);
    if (!picked) return;
    if ('shape' in picked) return this.choose(picked.shape);
    try {
      const source = await this.shelf.describe(picked.asset, entry.name);
      this.put('imported', entry.name.replace(/\.[^.]+$/, ''), source);
    } catch (error) {
      this.notices.say(`“${entry.name}” cannot be had. ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  /** Another mesh in the place of this one; it stands and moves as this one did. */
  private put(shape: MeshShape, name: string, source?: SetMesh['source']): void {
    const { placing, motion, copies, order } = this.mesh();
    const mesh = newMesh(shape, {}, { name, placing, motion, copies, order, ...(source ? { source } : {}) });
    this.edited.emit({ edit: putMesh(this.meshId(), mesh, `Mesh: ${name}`) });
  }

  protected set(spec: MeshNumber, value: number, gesture?: string): void {
    this.emit(`Mesh: ${spec.label}`, ['numbers', spec.name], value, gesture);
  }

  protected reset(spec: MeshNumber): void {
    this.emit(`Reset ${spec.label}`, ['numbers', spec.name], undefined);
  }

  protected setSmooth(smooth: boolean): void {
    this.emit(smooth ? 'Smooth shading' : 'Flat shading', ['smooth'], smooth);
  }

  protected emit(label: string, path: readonly string[], value: Json | undefined, gesture?: string): void {
    this.edited.emit({ edit: { label, changes: [{ path: ['meshes', this.meshId(), ...path], value }] }, gesture });
  }
}
