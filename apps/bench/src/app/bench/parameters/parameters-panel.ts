import { ChangeDetectionStrategy, Component, computed, inject, signal, ViewEncapsulation } from '@angular/core';
import { LIVE_KINDS, type InletValue, type LiveInput, type MaterialParameter, type Variant } from '@brelvin/contract';
import { applyVariant, keepVariant, removeVariant, setParameter, STILL_LIVE_INPUT, throughWhite } from '@brelvin/core';
import { GradientField } from '../../shared/controls/gradient-field';
import { NumberField } from '../../shared/controls/number-field';
import { newId } from '../../shared/documents/new-id';
import { Icon } from '../../shared/icons/icon';
import { SourceEditor } from '../code/source-editor';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { ValueControl } from '../values/value-control';
import { specOfParameter, type ValueSpec } from '../values/value-spec';
import { declaredParameters, shownParameters } from './shown-parameters';
import type { PanelEntry } from '../registry/panel-entry';

interface ParameterRow extends MaterialParameter {
  readonly id: string;
  readonly spec: ValueSpec;
}

const LIVE_WORDS: Readonly<Record<LiveInput['kind'], string>> = {
  time: 'time',
  sine: 'sine',
  ramp: 'ramp',
  pointer: 'pointer over the part',
};
const LIVE_NUMBERS: Readonly<Record<LiveInput['kind'], readonly (readonly [keyof LiveInput, string])[]>> = {
  time: [
    ['low', 'Starts at'],
    ['speed', 'Per second'],
  ],
  sine: [
    ['low', 'From'],
    ['high', 'To'],
    ['period', 'Seconds'],
    ['phase', 'Phase'],
  ],
  ramp: [
    ['low', 'From'],
    ['high', 'To'],
    ['period', 'Seconds'],
    ['phase', 'Phase'],
  ],
  pointer: [
    ['low', 'Away'],
    ['high', 'Over'],
    ['period', 'Seconds'],
  ],
};

/** What a parameter of a graph can be. */
const TYPES = [
  ['number', 'number'],
  ['colour', 'colour'],
  ['stops', 'gradient'],
] as const;
type GraphParameterType = (typeof TYPES)[number][0];
const MOVABLE: ReadonlySet<string> = new Set(TYPES.map(([type]) => type));

/** The material's named numbers and colours, to be changed without looking at the graph, and their variants. */
@Component({
  selector: 'brelvin-parameters-panel',
  imports: [GradientField, Icon, NumberField, ValueControl],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './parameters-panel.css',
  host: { class: 'panel-body' },
  templateUrl: './parameters-panel.html',
})
export class ParametersPanel {
  private readonly editor = inject(GraphEditor);
  private readonly codeWork = inject(SourceEditor);
  private readonly places = inject(BenchPlaces);
  protected readonly open = signal<string | undefined>(undefined);
  protected readonly liveKinds = LIVE_KINDS;
  protected readonly liveWords = LIVE_WORDS;
  protected readonly types = TYPES;

  private readonly declared = computed(() => declaredParameters(this.editor.subject()));
  /** Whether code declares them: then it says what they are called and how far they go. */
  protected readonly inCode = computed(() => this.declared() !== undefined);

  /** By heading, those without one first. */
  protected readonly sections = computed(() => {
    const rows = shownParameters(this.editor.subject(), this.declared()).map(([id, parameter]): ParameterRow => ({
      id,
      ...parameter,
      spec: specOfParameter(parameter, { parameter: id }),
    }));
    const headings = [...new Set(rows.map((row) => row.heading ?? ''))].sort((a, b) => Number(a !== '') - Number(b !== ''));
    return headings.map((heading) => ({ heading, rows: rows.filter((row) => (row.heading ?? '') === heading) }));
  });
  protected readonly variants = computed(() =>
    Object.entries(this.editor.subject().variants)
      .map(([id, variant]) => ({ id, variant }))
      .sort((a, b) => a.variant.order - b.variant.order),
  );

  protected numberOf(row: ParameterRow): number {
    return typeof row.value === 'number' ? row.value : (row.value[0] ?? 0);
  }

  protected colourOf(row: ParameterRow): readonly number[] {
    return typeof row.value === 'number' ? [row.value, row.value, row.value] : row.value;
  }

  protected chooseImage(row: ParameterRow, image: string): void {
    this.editor.do(setParameter(row.id, 'image', image));
  }

  /** Shows where the code declares it. */
  protected showDeclaration({ uniform }: ParameterRow): void {
    const found = uniform === undefined ? undefined : this.declared()?.get(uniform);
    if (!found) return;
    this.places.workspace.set('code');
    this.codeWork.show({ kind: 'pixels' }, found.nameRange);
  }

  /** The default of a number that code declares. */
  protected reset(row: ParameterRow): void {
    const value = row.uniform === undefined ? undefined : this.declared()?.get(row.uniform)?.value;
    if (value !== undefined) this.set(row, value);
  }

  protected set(row: ParameterRow, value: InletValue, gesture?: string): void {
    this.editor.do(setParameter(row.id, 'value', value), gesture);
  }

  protected renamed(row: ParameterRow, field: HTMLInputElement): void {
    const name = field.value.trim();
    if (name && name !== row.name) this.editor.do(setParameter(row.id, 'name', name));
    else field.value = row.name;
  }

  protected words(row: ParameterRow, field: 'heading' | 'help' | 'unit', text: string): void {
    this.editor.do(setParameter(row.id, field, text.trim() || undefined));
  }

  protected bound(row: ParameterRow, field: 'low' | 'high', value: number | undefined, gesture?: string): void {
    this.editor.do(setParameter(row.id, field, value), gesture);
  }

  protected retyped(row: ParameterRow, type: GraphParameterType): void {
    const [red = 0, green = red, blue = red] = this.colourOf(row);
    const value = { number: this.numberOf(row), colour: [red, green, blue], stops: throughWhite([red, green, blue]) }[type];
    const changes = [setParameter(row.id, 'type', type), setParameter(row.id, 'value', value), setParameter(row.id, 'live', undefined)];
    const words = TYPES.find(([each]) => each === type)?.[1];
    this.editor.do({ label: `Make “${row.name}” a ${words}`, changes: changes.flatMap((edit) => edit.changes) });
  }

  protected canMove({ type }: ParameterRow): boolean {
    return MOVABLE.has(type);
  }

  /** A colour runs through a gradient: it has no numbers to go from and to. */
  protected liveNumbersOf({ type }: ParameterRow, kind: LiveInput['kind']): readonly (readonly [keyof LiveInput, string])[] {
    return LIVE_NUMBERS[kind].filter(([field]) => type !== 'colour' || (field !== 'high' && (field !== 'low' || kind === 'time')));
  }

  protected throughOf(row: ParameterRow): readonly number[] {
    return row.live?.through ?? throughWhite(this.colourOf(row));
  }

  protected setThrough(row: ParameterRow, value: InletValue, gesture?: string): void {
    const through = typeof value === 'number' ? [value] : value;
    if (row.live) this.editor.do(setParameter(row.id, 'live', { ...row.live, through }), gesture);
  }

  protected drive(row: ParameterRow, kind: string): void {
    const known = LIVE_KINDS.find((each) => each === kind);
    // The places of a gradient move by at most its own length; a colour begins at its gradient's start.
    const range = row.type === 'number' ? { low: row.low ?? 0, high: row.high ?? 1 } : { low: 0, high: 1 };
    const through = row.type === 'colour' ? { through: row.live?.through ?? throughWhite(this.colourOf(row)) } : {};
    this.editor.do(setParameter(row.id, 'live', known && { ...STILL_LIVE_INPUT, ...range, ...row.live, ...through, kind: known }));
  }

  protected setLive(row: ParameterRow, field: keyof LiveInput, value: number, gesture?: string): void {
    if (row.live) this.editor.do(setParameter(row.id, 'live', { ...row.live, [field]: value }), gesture);
  }

  protected liveNumber(row: ParameterRow, field: keyof LiveInput): number {
    const value = row.live?.[field];
    return typeof value === 'number' ? value : 0;
  }

  protected keep(): void {
    const names = new Set(this.variants().map(({ variant }) => variant.name));
    let name = 'Variant 1';
    for (let count = 2; names.has(name); count++) name = `Variant ${count}`;
    this.editor.do(keepVariant(this.editor.subject(), newId(), name));
  }

  protected use(variant: Variant): void {
    this.editor.do(applyVariant(this.editor.subject(), variant));
  }

  protected renameVariant(id: string, field: HTMLInputElement): void {
    const name = field.value.trim();
    if (name) this.editor.do({ label: 'Name a variant', changes: [{ path: ['variants', id, 'name'], value: name }] });
  }

  protected dropVariant(id: string): void {
    this.editor.do(removeVariant(id));
  }
}

export const PARAMETERS_TAB: PanelEntry = {
  id: 'parameters',
  // With a parameter they have a column of their own.
  tab: () => {
    const { subject } = inject(GraphEditor);
    return () => (shownParameters(subject()).length > 0 ? undefined : { help: 'Named values of the material, to be changed at a glance' });
  },
  view: ParametersPanel,
};
