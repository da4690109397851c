import type { Material, MaterialCode, MaterialParameter, Change } from '@brelvin/contract';
import type { Edit } from '../../document/edit';
import { uniformsOf } from '../../language';
import { declaredParameters, type DeclaredParameter } from './declared-parameters';
import { isWhole } from './read-code';
import { SYSTEM_UNIFORMS } from './system-names';

/** What a material's texts declare as parameters, in their order; whatever else is wrong with them. */
export function parametersOf(code: MaterialCode): DeclaredParameter[] {
  const whole = isWhole(code);
  const given = new Set(whole ? Object.keys(SYSTEM_UNIFORMS) : []);
  const uniforms = [...uniformsOf(code.text, given), ...uniformsOf(code.vertices ?? '', given)].filter(
    ({ name }) => !(whole && Object.hasOwn(SYSTEM_UNIFORMS, name)),
  );
  const once = uniforms.filter(({ name }, index) => uniforms.findIndex((each) => each.name === name) === index);
  return declaredParameters(once).parameters;
}

/**
 * Puts other texts into a code material, with its parameters in step: a uniform that got another name stays the same
 * parameter, so that its value, its variants and what sets give it survive. One that is gone keeps its value, in case it
 * comes back.
 */
export function setMaterialCode(material: Pick<Material, 'code' | 'parameters'>, code: MaterialCode, label = 'Write code'): Edit {
  const texts: Change[] = [];
  if (code.text !== material.code?.text || !material.code) {
    if (material.code) texts.push({ path: ['code', 'text'], value: code.text });
    else texts.push({ path: ['code'], value: code });
  }
  if (material.code && code.vertices !== material.code.vertices) {
    texts.push(code.vertices === undefined ? { path: ['code', 'vertices'] } : { path: ['code', 'vertices'], value: code.vertices });
  }
  return { label, changes: [...texts, ...parameterChanges(material, code)] };
}

/** Changes that bring a material's parameters into step with texts. */
export function parameterChanges({ code: before, parameters }: Pick<Material, 'code' | 'parameters'>, code: MaterialCode): Change[] {
  const [old, now] = [before ? parametersOf(before) : [], parametersOf(code)];
  const renamed = renames(old, now);
  const ids = new Map(Object.entries(parameters).flatMap(([id, { uniform }]) => (uniform === undefined ? [] : [[uniform, id] as const])));
  const taken = new Set(Object.keys(parameters));
  const changes: Change[] = [];
  now.forEach((declared, order) => {
    const was = renamed.get(declared.uniform) ?? declared.uniform;
    const id = ids.get(declared.uniform) ?? ids.get(was);
    const wanted = fieldsOf(declared, order);
    const known = id === undefined ? undefined : parameters[id];
    if (id === undefined || !known) {
      const fresh = freeId(declared.uniform, taken);
      taken.add(fresh);
      changes.push({ path: ['parameters', fresh], value: { ...wanted, value: declared.value } });
      return;
    }
    const initial = old.find(({ uniform }) => uniform === was);
    changes.push(...fieldChanges(id, known, wanted));
    // What nobody has touched follows the default; what does not fit any more takes it.
    const untouched = initial !== undefined && same(known.value, initial.value);
    if ((untouched || known.type !== declared.type || sizeOf(known) !== sizeOf(declared)) && !same(known.value, declared.value))
      changes.push({ path: ['parameters', id, 'value'], value: declared.value });
  });
  return changes;
}

type Fields = Omit<MaterialParameter, 'value' | 'live' | 'image'>;

function fieldsOf({ uniform, name, type, low, high, heading, help, unit, choices }: DeclaredParameter, order: number): Fields {
  const all: Fields = { uniform, name, type, low, high, heading, help, unit, choices, order };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined)) as unknown as Fields;
}

const FIELDS = ['uniform', 'name', 'type', 'low', 'high', 'heading', 'help', 'unit', 'choices', 'order'] as const;

function fieldChanges(id: string, known: MaterialParameter, wanted: Fields): Change[] {
  const changes: Change[] = [];
  for (const field of FIELDS) {
    if (same(known[field], wanted[field])) continue;
    const path = ['parameters', id, field];
    const value = wanted[field];
    changes.push(value === undefined ? { path } : { path, value: value });
  }
  if (known.live && wanted.type !== 'number') changes.push({ path: ['parameters', id, 'live'] });
  return changes;
}

/** New names of uniforms by which they had before: as many came as went, of the same types in the same order. */
function renames(old: readonly DeclaredParameter[], now: readonly DeclaredParameter[]): Map<string, string> {
  const gone = old.filter(({ uniform }) => !now.some((each) => each.uniform === uniform));
  const come = now.filter(({ uniform }) => !old.some((each) => each.uniform === uniform));
  const fits = gone.length === come.length && gone.every(({ codeType }, index) => codeType === come[index]?.codeType);
  return new Map(fits ? come.map(({ uniform }, index): [string, string] => [uniform, gone[index]?.uniform ?? uniform]) : []);
}

function freeId(uniform: string, taken: ReadonlySet<string>): string {
  const wanted = `u-${uniform}`.slice(0, 60);
  let id = wanted;
  for (let count = 2; taken.has(id); count++) id = `${wanted}-${count}`;
  return id;
}

function sizeOf({ value }: Pick<MaterialParameter, 'value'>): number {
  return typeof value === 'number' ? 1 : value.length;
}

function same(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}
