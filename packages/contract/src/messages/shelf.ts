import { LONGEST_NAME, LONGEST_TAG } from '../documents/names';
import { FILE_USES, type FileUse } from '../files';
import { count, flag, list, object, oneOf, optional, text, whole, withDefault, type ReceivedOf, type TypeOf } from '../schema/schema';

export const SHELF_ORDERS = ['changed', 'name', 'made'] as const;

/** What every shelf of the Library can be asked for. */
export const shelfFields = {
  search: optional(text(LONGEST_NAME)),
  tag: optional(text(LONGEST_TAG)),
  sort: optional(oneOf(SHELF_ORDERS)),
  deleted: optional(flag, 'What was deleted, in place of what is there.'),
  offset: withDefault(whole(0, 1_000_000), 0),
  limit: withDefault(whole(1, 200), 60),
};

export const FILE_QUERY = object({
  ...shelfFields,
  use: optional(oneOf(Object.keys(FILE_USES) as FileUse[]), 'Images for materials, environments, or meshes; all when absent.'),
});

export const TAG_COUNT = object({ tag: text(LONGEST_TAG), count });
export const TAGS = object({ tags: list(TAG_COUNT, 0, 100) });

export type ShelfOrder = (typeof SHELF_ORDERS)[number];

/** What part of a shelf is asked for, as it is received. */
export type ShelfQuery = Omit<ReceivedOf<typeof FILE_QUERY>, 'use'>;

/** Asks for a part of a shelf of files. */
export interface FileQuery extends TypeOf<typeof FILE_QUERY> {}

export interface TagCount extends TypeOf<typeof TAG_COUNT> {}
