import { basename } from 'node:path';
import type { BrelvinDocument, DistanceField, LightRig, Material, StageSet } from '@brelvin/contract';
import {
  library,
  libraryWith,
  linearFromSrgb,
  materialsOf,
  newCodeMaterial,
  newMaterial,
  newRig,
  newSet,
  withFields,
  writtenField,
  type BrelvinFile,
  type FileContent,
  type Library,
} from '@brelvin/core';
import { CODE_FILE, libraryBeside, readCodeFile } from '../code-file';
import { BadFile, readBrelvinDocument } from '../read-file';

/** What a picture is made of, out of files. */
export interface SceneFile {
  readonly name: string;
  /** Id of the material on the Bench. */
  readonly bench: string;
  readonly materials: ReadonlyMap<string, Material>;
  readonly set: StageSet;
  readonly rig: LightRig;
  /** A set is seen as a whole, a material from near. */
  readonly whole: boolean;
  readonly library: Library;
  readonly assets: ReadonlyMap<string, FileContent>;
}

const BENCH = 'bench';
/** Of a field that stands alone. */
const FILE = 'file';

/**
 * A material on its set under its light rig, a set, a field, or a light rig on a sphere; of a file that holds less, with what is plain.
 *
 * @param given files of a set and a light rig to be used instead
 * @throws BadFile
 */
export async function readScene(path: string, given: { readonly set?: string; readonly rig?: string } = {}): Promise<SceneFile> {
  const main = await readMain(path);
  const others = [given.set, given.rig].filter((each) => each !== undefined);
  const read = await Promise.all(others.map(async (each) => [each, await readBrelvinDocument(each)] as const));
  const find = <F extends BrelvinDocument['format']>(format: F, word: string, file?: string): BrelvinDocument | undefined => {
    const found = read.find(([each]) => each === file)?.[1].document;
    if (found && found.format !== format) throw new BadFile(`${file}: is no ${word}.`);
    return found ?? (main.document.format === format ? main.document : undefined);
  };
  const field = main.document.format === 'brelvin-field' ? main.document : undefined;
  if (main.document.format === 'brelvin-function')
    throw new BadFile(`${path}: is a function; draw a material that uses it, or a set or light rig.`);
  const beside = new Map([main, ...read.map(([, each]) => each)].flatMap((each) => [...each.beside]));
  const material = main.document.format === 'brelvin-material' ? main.document : newMaterial('');
  const set = (find('brelvin-set', 'set', given.set) ?? beside.get(material.seenIn.set ?? '') ?? newSet('', field && 'field')) as StageSet;
  const rig = (find('brelvin-light-rig', 'light rig', given.rig) ?? beside.get(material.seenIn.rig ?? '') ?? newRig('')) as LightRig;
  const materials = new Map([[BENCH, material]]);
  // A set’s file leaves out the material that it came with: what is not there is that one.
  for (const id of materialsOf(set)) {
    const other = beside.get(id);
    materials.set(id, other?.format === 'brelvin-material' ? other : material);
  }
  return {
    name: basename(path),
    bench: BENCH,
    materials,
    set: { ...set, meshes: withTexts(set.meshes, beside, field) },
    rig,
    whole: main.document.format === 'brelvin-set' || field !== undefined,
    library: libraryWithTexts(main.library, new Map([...read.flatMap(([, each]) => [...each.functions]), ...main.functions])),
    assets: new Map([main, ...read.map(([, each]) => each)].flatMap((each) => [...each.assets])),
  };
}

/** Fields of a set with their texts, out of the same file; of a field’s own file, what stands alone is that. */
function withTexts(meshes: StageSet['meshes'], beside: ReadonlyMap<string, BrelvinDocument>, own?: DistanceField): StageSet['meshes'] {
  if (own)
    return Object.fromEntries(
      Object.entries(meshes).map(([id, mesh]) => [
        id,
        mesh.shape === 'field' && !mesh.field ? { ...mesh, field: FILE, formula: writtenField(own).text } : mesh,
      ]),
    );
  return withFields(meshes, (id) => {
    const found = beside.get(id);
    return found?.format === 'brelvin-field' ? writtenField(found).text : undefined;
  });
}

async function readMain(path: string): Promise<BrelvinFile & { readonly library: Library }> {
  if (!CODE_FILE.test(path)) return { ...(await readBrelvinDocument(path)), library: library() };
  const code = await readCodeFile(path);
  if (code.kind !== 'material') throw new BadFile(`${path}: holds functions, but no material: there is no paint and no void main().`);
  const document = newCodeMaterial(basename(path), {}, code.code);
  return { document, beside: new Map(), assets: new Map(), functions: new Map(), library: await libraryBeside(path) };
}

/** A library with the functions that came in files. */
function libraryWithTexts(base: Library, functions: BrelvinFile['functions']): Library {
  const texts = new Map([...functions].map(([name, text]) => [name, { text }]));
  return texts.size > 0 ? libraryWith(texts, base) : base;
}

/**
 * A material with other values of its parameters, each as `NAME=VALUE`: numbers with commas between them, or a colour as `#rrggbb`.
 *
 * @throws BadFile
 */
export function withParameters(scene: SceneFile, settings: readonly string[]): SceneFile {
  const material = scene.materials.get(scene.bench);
  if (!material || settings.length === 0) return scene;
  let { parameters } = material;
  for (const setting of settings) {
    const [name = '', text = ''] = setting.split(/=(.*)/s);
    const found = Object.entries(parameters).find(([, each]) => each.name === name || each.uniform === name);
    if (!found) {
      const known = Object.values(parameters).map((each) => `“${each.name}”`);
      throw new BadFile(
        `--parameter ${setting}: there is no parameter “${name}”. ${known.length > 0 ? `There is ${known.join(', ')}.` : 'There is none.'}`,
      );
    }
    const [id, parameter] = found;
    parameters = { ...parameters, [id]: { ...parameter, value: valueOf(setting, text, parameter.value) } };
  }
  const changed = { ...material, parameters };
  return { ...scene, materials: new Map([...scene.materials].map(([id, each]) => [id, each === material ? changed : each])) };
}

function valueOf(setting: string, text: string, before: Material['parameters'][string]['value']): number | number[] {
  const count = Array.isArray(before) ? before.length : 1;
  if (typeof before !== 'number' && !(Array.isArray(before) && before.every((each) => typeof each === 'number')))
    throw new BadFile(`--parameter ${setting}: only numbers, vectors and colours can be set here.`);
  const hex = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(text.trim());
  const numbers = hex
    ? hex.slice(1).map((each) => linearFromSrgb(parseInt(each, 16) / 255))
    : text.split(',').map((each) => (each.trim() === '' ? NaN : Number(each)));
  if (numbers.length !== count || !numbers.every(Number.isFinite))
    throw new BadFile(`--parameter ${setting}: ${count === 1 ? 'one number is' : `${count} numbers with commas between them are`} wanted.`);
  return Array.isArray(before) ? numbers : (numbers[0] ?? 0);
}
