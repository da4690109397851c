import { ChangeDetectionStrategy, Component, computed, inject, input, output, ViewEncapsulation } from '@angular/core';
import type { MeshShape, SetMesh } from '@brelvin/contract';
import { MESH_SHAPES } from '@brelvin/core';
import { FieldChoice } from './field-choice';
import { StageBinding } from './stage-binding';

interface TypedText {
  readonly label: string;
  readonly rows: number;
  /** Below its label. */
  readonly wide?: boolean;
  readonly help: string;
}

/** What is typed for each shape. */
const FORMULAS: Partial<Record<MeshShape, TypedText>> = {
  height: { label: 'y of x, z', rows: 3, help: 'As in shading code, with all functions of the library; statements end in return' },
  surface: { label: 'position of u, v', rows: 3, help: 'As in shading code, with all functions of the library; statements end in return' },
  field: {
    label: 'Distance of p, as shading code',
    rows: 16,
    wide: true,
    help: 'A function float field(vec3 p, out int region): metres to the surface, below 0 inside. A region is a constant with a comment: const int POSTS = 1; // region Posts',
  },
};

const ANY: TypedText = { label: 'formula', rows: 3, help: '' };

let fields = 0;

/** The formula of a mesh that is typed: what it is about, its text, and what is wrong with it. */
@Component({
  selector: 'brelvin-formula-field',
  imports: [FieldChoice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './formula-field.css',
  host: { class: 'contents' },
  template: `
    @if (mesh().shape === 'field') {
      <brelvin-field-choice [meshId]="meshId()" [mesh]="mesh()" (left)="left.emit()" />
    }
    @if (mesh().field === undefined) {
      <label class="field-label" [class.formula-wide]="about().wide" [for]="id" [title]="about().help">{{ about().label }}</label>
    }
    <span [class.formula-wide]="about().wide">
      @if (mesh().field === undefined) {
        <textarea
          #text
          class="text-input formula"
          [rows]="about().rows"
          [attr.wrap]="about().wide ? 'off' : null"
          spellcheck="false"
          maxlength="4000"
          [id]="id"
          [value]="formula()"
          [attr.aria-invalid]="problem() ? true : null"
          (input)="typed.emit(text.value)"
          (keydown)="$event.stopPropagation()"
        ></textarea>
      }
      @if (problem(); as words) {
        <p class="formula-problem" role="alert">{{ words }}</p>
      }
    </span>
  `,
})
export class FormulaField {
  readonly meshId = input.required<string>();
  readonly mesh = input.required<SetMesh>();
  readonly typed = output<string>();
  /** One goes to where a field is written. */
  readonly left = output<void>();

  protected readonly about = computed(() => FORMULAS[this.mesh().shape] ?? ANY);
  protected readonly id = `formula-${++fields}`;
  private readonly stage = inject(StageBinding);
  protected readonly formula = computed(() => this.mesh().formula ?? MESH_SHAPES[this.mesh().shape].formula ?? '');
  protected readonly problem = computed(() => this.stage.state()?.formulas.find(({ mesh }) => mesh === this.meshId())?.message);
}
