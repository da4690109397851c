import type { BrelvinDocument, DocumentKind, Transaction } from '@brelvin/core';

/** The largest number of a step: what PostgreSQL keeps as an integer. */
export const LARGEST_STEP = 2 ** 31 - 1;

export interface DocumentSummary {
  readonly id: string;
  readonly kind: DocumentKind;
  readonly name: string;
  readonly tags: readonly string[];
  readonly step: number;
  readonly updatedAt: Date;
  /** The step its picture shows; none when there is no picture. */
  readonly pictured: number | null;
}
export interface StoredDocument {
  readonly id: string;
  readonly step: number;
  readonly document: BrelvinDocument;
}
export interface StoredStep extends Transaction {
  readonly step: number;
  readonly at: Date;
}

/** Which part of a shelf of the Library is asked for. */
export interface ShelfQuery {
  readonly search?: string;
  readonly tag?: string;
  readonly sort?: 'changed' | 'name' | 'made';
  readonly deleted?: boolean;
  /** Of files only: images for materials, or environments. */
  readonly use?: 'image' | 'environment' | 'mesh';
  readonly offset: number;
  readonly limit: number;
}
export interface ListQuery extends ShelfQuery {
  readonly kind: DocumentKind;
}
export interface TagCount {
  readonly tag: string;
  readonly count: number;
}

/** A file of the workspace. */
export interface AssetSummary {
  readonly sha256: string;
  readonly name: string;
  readonly type: string;
  readonly size: number;
  readonly width: number;
  readonly height: number;
  readonly tags: readonly string[];
  readonly updatedAt: Date;
}

/** What may be changed about a file; its content never does. */
export interface AssetChange {
  readonly name?: string;
  readonly tags?: readonly string[];
  readonly deleted?: boolean;
}

/** A point in a document's history with a name. */
export interface NamedVersion {
  readonly name: string;
  readonly step: number;
  readonly at: Date;
  /** The documents that it also holds, with the steps they had. */
  readonly beside?: readonly { readonly id: string; readonly step: number }[];
}

/** A part of a document's history: the state before the first step, and the steps. */
export interface HistoryPart {
  readonly base: BrelvinDocument;
  readonly baseStep: number;
  readonly steps: readonly StoredStep[];
}

/** A function of the Library with its text. */
export interface StoredFunction {
  readonly id: string;
  readonly step: number;
  readonly name: string;
  readonly text: string;
  readonly formerNames: readonly string[];
}

/** A document that asks for a function. */
export interface FunctionUser {
  readonly id: string;
  readonly kind: DocumentKind;
  readonly name: string;
}
