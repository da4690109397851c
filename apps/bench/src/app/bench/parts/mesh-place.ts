import { ChangeDetectionStrategy, Component, computed, input, output, ViewEncapsulation } from '@angular/core';
import { MOST_COPIES, type Json, type SetMesh } from '@brelvin/contract';
import { MESH_SHAPES, setMesh, type Edit } from '@brelvin/core';
import { Choices, plainChoices } from '../../shared/controls/choices';
import { NumberField } from '../../shared/controls/number-field';
import { FormulaField } from '../stage/formula-field';

const TRIPLES = [
  { field: 'position', label: 'Position, m', start: 0 },
  { field: 'turn', label: 'Rotation, °', start: 0 },
  { field: 'scale', label: 'Scale', start: 1 },
] as const;
type Triple = (typeof TRIPLES)[number];
const DEGREES = 180 / Math.PI;
const MOTIONS = ['still', 'spin', 'rock'] as const;

/** A mesh's name, place, motion, copies and formula. */
@Component({
  selector: 'brelvin-mesh-place',
  imports: [Choices, FormulaField, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './mesh-place.css',
  templateUrl: './mesh-place.html',
})
export class MeshPlace {
  readonly id = input.required<string>();
  readonly mesh = input.required<SetMesh>();
  readonly edited = output<{ edit: Edit; gesture?: string }>();

  protected readonly triples = TRIPLES;
  protected readonly motions = plainChoices(MOTIONS);
  protected readonly degrees = DEGREES;
  protected readonly axes = ['x', 'y', 'z'] as const;
  protected readonly turnAxes = plainChoices(this.axes);
  protected readonly most = MOST_COPIES;
  protected readonly hasFormula = computed(() => MESH_SHAPES[this.mesh().shape].formula !== undefined);

  protected shown({ field, start }: Triple, axis: number): number {
    const value = this.mesh().placing[field][axis] ?? start;
    return field === 'turn' ? value * DEGREES : value;
  }

  protected setTriple({ field, label, start }: Triple, axis: number, value: number, gesture?: string): void {
    const next = [0, 1, 2].map((each) => this.mesh().placing[field][each] ?? start);
    next[axis] = field === 'turn' ? value / DEGREES : value;
    this.emit(label.split(',')[0] ?? label, ['placing', field], next, gesture);
  }

  /** What its file did not have. */
  protected readonly madeWords = computed(() => {
    const made = this.mesh().source?.made ?? [];
    const words = { normals: 'normals', tangents: 'tangents', uvs: 'UVs', secondUvs: 'second UVs' };
    return made.length === 0 ? '' : `; made for it: ${made.map((each) => words[each]).join(', ')}`;
  });

  protected fitTwoMetres(): void {
    const { low, high } = this.mesh().source?.bounds ?? { low: [], high: [] };
    const size = Math.max(...high.map((each, axis) => each - (low[axis] ?? 0)));
    if (!(size > 0)) return;
    // A mesh that is larger than what may stand there keeps the largest scale that may.
    const scale = Math.min(2 / size, 1e4);
    const position = [0, 1, 2].map((axis) => (-((low[axis] ?? 0) + (high[axis] ?? 0)) / 2) * scale);
    this.emit('Fit', ['placing'], { position, turn: [0, 0, 0], scale: [scale, scale, scale] });
  }

  protected mirror(): void {
    const [x = 1, y = 1, z = 1] = this.mesh().placing.scale;
    this.emit('Mirror', ['placing', 'scale'], [-x, y, z]);
  }

  protected emit(label: string, path: readonly string[], value: Json, gesture?: string): void {
    this.edited.emit({ edit: setMesh(this.id(), path, value, `${label} of ${this.mesh().name}`), gesture });
  }

  /** Copies are bounded as a whole: a row more means fewer columns. */
  protected setCopies(field: 'columns' | 'rows', value: number, gesture?: string): void {
    const other = this.mesh().copies[field === 'columns' ? 'rows' : 'columns'];
    this.emit('Instances', ['copies', field], Math.min(Math.max(1, Math.round(value)), Math.floor(MOST_COPIES / other)), gesture);
  }

  protected rename(field: HTMLInputElement): void {
    const name = field.value.trim();
    if (name) this.emit('Name', ['name'], name);
    else field.value = this.mesh().name;
  }
}
