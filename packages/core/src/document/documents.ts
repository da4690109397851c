import {
  type BrelvinDocument,
  DOCUMENT_KINDS,
  type DocumentKind,
  isJsonObject,
  KIND_NAMES,
  type Problem,
  validate,
} from '@brelvin/contract';
import { materialFrom1, rigFrom1, rigFrom2, setFrom1, setFrom2, type Migration } from './migrations';

/** Earlier forms to the next one, by the version they start from. */
const MIGRATIONS: Readonly<Record<DocumentKind, Readonly<Record<number, Migration>>>> = {
  material: { 1: materialFrom1 },
  set: { 1: setFrom1, 2: setFrom2 },
  function: {},
  field: {},
  rig: { 1: rigFrom1, 2: rigFrom2 },
};

/** The document cannot be used; `problems` say why, each with its place. */
export class InvalidDocument extends Error {
  constructor(
    message: string,
    readonly problems: readonly Problem[] = [],
  ) {
    super(message);
  }
}

export function kindOf(document: BrelvinDocument): DocumentKind {
  return KIND_NAMES.find((kind) => DOCUMENT_KINDS[kind].format === document.format) as DocumentKind;
}

/**
 * Takes anything that was parsed as JSON and gives a document of the present form.
 *
 * @throws InvalidDocument when it is something else, of a newer version, or damaged
 */
export function readDocument(value: unknown): BrelvinDocument {
  if (!isJsonObject(value)) throw new InvalidDocument('This is not a Brelvin document: it must be a JSON object.');
  const kind = KIND_NAMES.find((each) => DOCUMENT_KINDS[each].format === value['format']);
  if (!kind)
    throw new InvalidDocument(`This is not a Brelvin document: "format" is ${JSON.stringify(value['format'] ?? null).slice(0, 60)}.`);
  const { schema, version: present } = DOCUMENT_KINDS[kind];
  const { version } = value;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new InvalidDocument('This document does not say which version of the format it has ("version": a whole number from 1).');
  }
  if (version > present) {
    throw new InvalidDocument(
      `This document has version ${version} of its format; this Brelvin reads up to version ${present}. Open it with a newer Brelvin.`,
    );
  }
  let document: object = value;
  for (let from = version; from < present; from++) document = MIGRATIONS[kind][from]?.(document) ?? document;
  const problems = validate(schema, document);
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
