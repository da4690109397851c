import type { GraphNode, MaterialImage, Material, MaterialParameter, OpacityMode, Outline, Variant, Change } from '@brelvin/contract';
import type { Edit } from './edit';
import { GraphEdits } from './graph-edits';

export function rename(name: string): Edit {
  return { label: 'Rename', changes: [{ path: ['name'], value: name }] };
}

/** A new parameter, with the node that reads it. */
export function addParameter(
  parameterId: string,
  parameter: MaterialParameter,
  nodeId: string,
  node: GraphNode,
  edits = new GraphEdits(),
): Edit {
  return {
    label: 'Add a parameter',
    changes: [{ path: ['parameters', parameterId], value: parameter }, edits.putNode(nodeId, { ...node, parameter: parameterId })],
  };
}

const FIELD_WORDS: Readonly<Record<keyof MaterialParameter, string>> = {
  name: 'name',
  type: 'type',
  value: 'value',
  low: 'range',
  high: 'range',
  order: 'place in the list',
  heading: 'heading',
  help: 'help',
  unit: 'unit',
  live: 'live input',
  uniform: 'uniform',
  choices: 'choices',
  image: 'image',
};

/** Changes a field of a parameter; without a value the field goes. */
export function setParameter<K extends keyof MaterialParameter>(id: string, field: K, value: MaterialParameter[K]): Edit {
  const path = ['parameters', id, field];
  const change: Change = value === undefined ? { path } : { path, value: value };
  return { label: `Change a parameter’s ${FIELD_WORDS[field]}`, changes: [change] };
}

/** A name that no parameter has yet: the wanted one, or the wanted one and a number. */
export function freeParameterName(material: Pick<Material, 'parameters'>, wanted: string): string {
  const taken = new Set(Object.values(material.parameters).map((parameter) => parameter.name));
  let name = wanted;
  for (let count = 2; taken.has(name); count++) name = `${wanted} ${count}`;
  return name;
}

/** Keeps the present values of all parameters under a name. */
export function keepVariant(material: Material, id: string, name: string): Edit {
  const values = Object.fromEntries(Object.entries(material.parameters).map(([key, parameter]) => [key, parameter.value]));
  const order = Math.max(-1, ...Object.values(material.variants).map((variant) => variant.order)) + 1;
  const variant: Variant = { name, order, values };
  return { label: `Keep variant ${name}`, changes: [{ path: ['variants', id], value: variant }] };
}

/** Gives parameters the values of a variant; those that are gone are passed over. */
export function applyVariant(material: Material, { name, values }: Variant): Edit {
  const changes = Object.entries(values)
    .filter(([id]) => Object.hasOwn(material.parameters, id))
    .map(([id, value]): Change => ({ path: ['parameters', id, 'value'], value: value }));
  return { label: `Variant ${name}`, changes };
}

export function removeVariant(id: string): Edit {
  return { label: 'Delete a variant', changes: [{ path: ['variants', id] }] };
}

export function putImage(id: string, image: MaterialImage): Change {
  return { path: ['images', id], value: image };
}

export function setImageField<K extends keyof MaterialImage>(id: string, field: K, value: MaterialImage[K]): Edit {
  return { label: 'Change an image', changes: [{ path: ['images', id, field], value }] };
}

export function setTags(tags: readonly string[]): Edit {
  return { label: 'Change tags', changes: [{ path: ['tags'], value: [...tags] }] };
}

/** Switches a check off for a place, or on again. */
export function silence(key: string, silent: boolean): Edit {
  const path = ['silenced', key];
  return { label: silent ? 'Switch a check off here' : 'Switch a check on again', changes: [silent ? { path, value: true } : { path }] };
}

/** Draws a line round what wears the material, another one, or none. */
export function setOpacityMode(mode: OpacityMode): Edit {
  return { label: 'Opacity', changes: [{ path: ['opacity'], value: mode }] };
}

export function setOutline(outline: Outline | undefined): Edit {
  const path = ['outline'];
  return { label: 'Outline', changes: [outline ? { path, value: outline } : { path }] };
}

export function setOutlineField<K extends keyof Outline>(field: K, value: Outline[K]): Edit {
  return { label: 'Outline', changes: [{ path: ['outline', field], value }] };
}
