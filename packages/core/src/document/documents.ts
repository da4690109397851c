import { FUNCTION_VERSION, type LibraryFunction } from './function';
import { isJsonObject } from './json';
import { MATERIAL_VERSION, type Material } from './material';
import { RIG_VERSION, type LightRig } from './light-rig';
import { materialFrom1, rigFrom1, rigFrom2, setFrom1, setFrom2, type Migration } from './migrations';
import { validate, type Problem, type Schema } from './schema';
import { FUNCTION_SCHEMA, MATERIAL_SCHEMA, RIG_SCHEMA, SET_SCHEMA } from './schemas';
import { SET_VERSION, type StageSet } from './set';

export type BrelvinDocument = Material | StageSet | LightRig | LibraryFunction;
export type DocumentKind = 'material' | 'set' | 'rig' | 'function';

interface KindEntry {
  readonly format: BrelvinDocument['format'];
  readonly version: number;
  readonly schema: Schema;
  /** Earlier forms to the next one, by the version they start from. */
  readonly migrations: Readonly<Record<number, Migration>>;
}

export const DOCUMENT_KINDS: Readonly<Record<DocumentKind, KindEntry>> = {
  material: { format: 'brelvin-material', version: MATERIAL_VERSION, schema: MATERIAL_SCHEMA, migrations: { 1: materialFrom1 } },
  set: { format: 'brelvin-set', version: SET_VERSION, schema: SET_SCHEMA, migrations: { 1: setFrom1, 2: setFrom2 } },
  function: { format: 'brelvin-function', version: FUNCTION_VERSION, schema: FUNCTION_SCHEMA, migrations: {} },
  rig: { format: 'brelvin-light-rig', version: RIG_VERSION, schema: RIG_SCHEMA, migrations: { 1: rigFrom1, 2: rigFrom2 } },
};

/** The document can not be used; `problems` say why, each with its place. */
export class InvalidDocument extends Error {
  constructor(
    message: string,
    readonly problems: readonly Problem[] = [],
  ) {
    super(message);
  }
}

export function kindOf(document: BrelvinDocument): DocumentKind {
  const found = Object.entries(DOCUMENT_KINDS).find(([, entry]) => entry.format === document.format);
  return found?.[0] as DocumentKind;
}

/**
 * Takes anything that was parsed as JSON and gives a document of the present form.
 *
 * @throws InvalidDocument when it is something else, of a newer version, or damaged
 */
export function readDocument(value: unknown): BrelvinDocument {
  if (!isJsonObject(value)) throw new InvalidDocument('This is not a Brelvin document: it must be a JSON object.');
  const entry = Object.values(DOCUMENT_KINDS).find((each) => each.format === value['format']);
  if (!entry)
    throw new InvalidDocument(`This is not a Brelvin document: "format" is ${JSON.stringify(value['format'] ?? null).slice(0, 60)}.`);
  const { version } = value;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new InvalidDocument('This document does not say which version of the format it has ("version": a whole number from 1).');
  }
  if (version > entry.version) {
    throw new InvalidDocument(
      `This document has version ${version} of its format; this Brelvin reads up to version ${entry.version}. Open it with a newer Brelvin.`,
    );
  }
  let document: object = value;
  for (let from = version; from < entry.version; from++) document = entry.migrations[from]?.(document) ?? document;
  const problems = validate(entry.schema, document);
  if (problems.length > 0) {
    const [first] = problems;
    const more = problems.length > 1 ? ` (and ${problems.length - 1} more)` : '';
    throw new InvalidDocument(`This document is damaged: ${first?.place || 'it'} ${first?.message}${more}.`, problems);
  }
  return document as BrelvinDocument;
}

/**
 * The same from a file's text.
 *
 * @throws InvalidDocument also for text that is cut off or is not JSON
 */
export function parseDocument(text: string): BrelvinDocument {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    const tail = text.trimEnd().slice(-1);
    const cut = text.trimStart().startsWith('{') && tail !== '}';
    throw new InvalidDocument(
      cut ? 'This file ends too early: it was cut off. Save or copy it again.' : 'This file is not JSON, so it is not a Brelvin document.',
    );
  }
  return readDocument(value);
}
