import { ChangeDetectionStrategy, Component, computed, inject, input, output, ViewEncapsulation } from '@angular/core';
import { type InletValue, type Material, type MaterialParameter, type StageSet } from '@brelvin/contract';
import { overridesOf, dressPart, FLOOR, removePartValues, setPartValue, type Edit, type PartAddress } from '@brelvin/core';
import { Choices, plainChoices } from '../../shared/controls/choices';
import { NumberField } from '../../shared/controls/number-field';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { Icon } from '../../shared/icons/icon';
import { DocumentSource } from '../../shared/picking/document-source';
import { Picker } from '../../shared/picking/picker';
import type { PickerEntry } from '../../shared/picking/picker-source';
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
  imports: [Choices, Icon, NumberField, Picker, ValueControl],
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

  private readonly workbench = inject(Workbench);
  protected readonly faces = plainChoices(FACES);
  protected readonly materials = inject(DocumentSource).of('material');
  protected readonly dress = computed(() => overridesOf(this.set(), this.part().mesh, this.part().part));
  protected readonly isFloor = computed(() => this.part().mesh === FLOOR);
  /** What a part has without a material of its own. */
  protected readonly usual = computed((): readonly PickerEntry[] => [
    this.isFloor()
      ? { id: '', name: 'plaster', hint: 'plain and grey, as a floor without a material is' }
      : { id: '', name: 'the material on the Bench', hint: 'whichever is open' },
  ]);
  protected readonly materialName = computed(() =>
    this.dress().material === undefined ? (this.usual()[0]?.name ?? '') : (this.worn()?.name ?? 'a material that is gone'),
  );
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
