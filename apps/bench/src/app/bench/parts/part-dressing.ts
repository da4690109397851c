import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, ViewEncapsulation } from '@angular/core';
import { type InletValue, type Material, type MaterialParameter, type StageSet, type DocumentSummary } from '@brelvin/contract';
import { overridesOf, dressPart, FLOOR, removePartValues, setPartValue, type Edit, type PartAddress } from '@brelvin/core';
import { DocumentApi } from '../../shared/api/document-api';
import { Choices, plainChoices } from '../../shared/controls/choices';
import { NumberField } from '../../shared/controls/number-field';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { Icon } from '../../shared/icons/icon';
import { ValueControl } from '../values/value-control';
import { specOfParameter, type ValueSpec } from '../values/value-spec';

interface ValueRow {
  readonly id: string;
  readonly parameter: MaterialParameter;
  readonly spec: ValueSpec;
  readonly value: InletValue;
  readonly own: boolean;
}

const FACES = ['auto', 'front', 'back', 'both'] as const;

/** What one part wears, and how it is drawn. */
@Component({
  selector: 'brelvin-part-dressing',
  imports: [Choices, Icon, NumberField, ValueControl],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './part-dressing.css',
  templateUrl: './part-dressing.html',
})
export class PartDressing {
  readonly set = input.required<StageSet>();
  readonly part = input.required<PartAddress>();
  readonly materialId = input.required<string>();
  readonly edited = output<{ edit: Edit; gesture?: string }>();

  private readonly api = inject(DocumentApi);
  private readonly workbench = inject(Workbench);
  protected readonly faces = plainChoices(FACES);
  protected readonly materials = signal<readonly DocumentSummary[]>([]);
  protected readonly dress = computed(() => overridesOf(this.set(), this.part().mesh, this.part().part));
  protected readonly isFloor = computed(() => this.part().mesh === FLOOR);
  protected readonly open = computed(() => this.dress().material === undefined);
  protected readonly worn = computed((): Material | undefined => {
    const found = this.workbench.document(this.dress().material ?? this.materialId());
    return found?.format === 'brelvin-material' ? found : undefined;
  });
  protected readonly values = computed((): ValueRow[] => {
    const own = this.dress().values;
    return Object.entries(this.worn()?.parameters ?? {})
      .sort(([, a], [, b]) => a.order - b.order)
      .map(([id, parameter]) => ({
        id,
        parameter,
        spec: specOfParameter(parameter),
        value: spread(own[id] ?? parameter.value, parameter.value),
        own: own[id] !== undefined,
      }));
  });

  /** Values of its own whose parameters are gone. */
  protected readonly gone = computed((): readonly string[] => {
    const worn = this.worn();
    return worn ? Object.keys(this.dress().values).filter((id) => !Object.hasOwn(worn.parameters, id)) : [];
  });

  constructor() {
    void this.api.list('material', { limit: 200, sort: 'name' }).then(
      ({ documents }) => this.materials.set(documents),
      () => undefined,
    );
  }

  protected wear(id: string): void {
    this.dressWith('material', id === '' ? undefined : id);
  }

  protected dressWith<K extends 'material' | 'drawOrder' | 'depthOffset' | 'faces' | 'casts' | 'receives'>(
    field: K,
    value: Parameters<typeof dressPart<K>>[4],
    gesture?: string,
  ): void {
    const { mesh, part } = this.part();
    this.edited.emit({ edit: dressPart(this.set(), mesh, part, field, value, newId), gesture });
  }

  protected setValue(id: string, value: InletValue | undefined, gesture?: string): void {
    const { mesh, part } = this.part();
    this.edited.emit({ edit: setPartValue(this.set(), mesh, part, id, value, newId), gesture });
  }

  protected removeGone(): void {
    const { mesh, part } = this.part();
    this.edited.emit({ edit: removePartValues(this.set(), mesh, part, this.gone()) });
  }
}

/** As many numbers as the parameter has; one number stands for each. */
function spread(value: InletValue, own: InletValue): InletValue {
  return typeof value === 'number' && typeof own !== 'number' ? own.map(() => value) : value;
}
