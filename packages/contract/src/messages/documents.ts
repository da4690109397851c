import { DOCUMENT_KINDS, KIND_NAMES, type BrelvinDocument } from '../documents/kinds';
import { documentId, LONGEST_NAME, name, tags } from '../documents/names';
import {
  anything,
  count,
  either,
  list,
  moment,
  none,
  object,
  oneOf,
  optional,
  text,
  whole,
  withDefault,
  type TypeOf,
} from '../schema/schema';
import { shelfFields } from './shelf';
import { STORED_STEP, stepNumber } from './steps';

const ANY_NUMBER_OF = Number.MAX_SAFE_INTEGER;
const kind = oneOf(KIND_NAMES);

/** Checked by `readDocument`, which takes earlier forms along. */
export const anyDocument = anything<BrelvinDocument>(...Object.values(DOCUMENT_KINDS).map((entry) => entry.schema));

// What is asked

export const DOCUMENT_ADDRESS = object({ id: documentId });
export const STEP_ADDRESS = object({ id: documentId, step: stepNumber });
export const KIND_QUERY = object({ kind });
export const DOCUMENT_QUERY = object({ kind, ...shelfFields });
export const AFTER_QUERY = object({ after: stepNumber });
export const STEP_QUERY = object({ step: stepNumber });
export const HISTORY_QUERY = object({ limit: withDefault(whole(1, 500), 200), before: optional(stepNumber) });
export const FILE_FORM_QUERY = object({
  images: withDefault(oneOf(['inside', 'links']), 'inside'),
  with: optional(oneOf(['stage']), 'Its set and light rig too.'),
});
export const NEW_DOCUMENT = object({ id: documentId, document: anyDocument });
export const DOCUMENT_STEP = object({ id: documentId, step: stepNumber });
export const NEW_VERSION = object({ name, step: stepNumber, beside: optional(list(DOCUMENT_STEP, 0, 1000)) });

// What is answered

export const DOCUMENT_SUMMARY = object({
  id: documentId,
  kind,
  name: text(LONGEST_NAME),
  tags,
  step: stepNumber,
  updatedAt: moment,
  pictured: either([stepNumber, none], 'the step that its picture shows, or null'),
});
export const DOCUMENT_LIST = object({ documents: list(DOCUMENT_SUMMARY, 0, 200), total: count });
export const STORED_DOCUMENT = object({ id: documentId, step: stepNumber, document: anyDocument });
export const SAVED = object({ step: stepNumber });
export const STEPS = object({ steps: list(STORED_STEP, 0, ANY_NUMBER_OF) });
export const HISTORY_PART = object({ base: anyDocument, baseStep: stepNumber, steps: list(STORED_STEP, 0, 500) });
export const NAMED_VERSION = object({ name, step: stepNumber, at: moment, beside: optional(list(DOCUMENT_STEP, 0, 1000)) });
export const VERSIONS = object({ versions: list(NAMED_VERSION, 0, ANY_NUMBER_OF) });
export const NAMED = object({ name, step: stepNumber });

/** What lists know of a document. `pictured`: the step its picture shows; null when there is no picture. */
export interface DocumentSummary extends TypeOf<typeof DOCUMENT_SUMMARY> {}

export interface StoredDocument extends TypeOf<typeof STORED_DOCUMENT> {}

/** A document as it was after a step. */
export interface DocumentStep extends TypeOf<typeof DOCUMENT_STEP> {}

export interface NewVersion extends TypeOf<typeof NEW_VERSION> {}

/** A point in a document's history with a name. `beside`: what it also holds, where it holds all that stood on the Stage. */
export interface NamedVersion extends TypeOf<typeof NAMED_VERSION> {}

/** A part of a document's history: the state before the first step, and the steps. */
export interface HistoryPart extends TypeOf<typeof HISTORY_PART> {}
