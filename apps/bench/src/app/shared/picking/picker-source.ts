import type { TagCount } from '@brelvin/contract';
import type { IconName } from '../icons/icon';

/** Something that can be picked. */
export interface PickerEntry {
  readonly id: string;
  readonly name: string;
  /** What tells it from others of its name: tags, a size, when it was changed. */
  readonly hint?: string;
  /** Address of its picture; nothing where there is none. */
  readonly picture?: string;
  /** A drawing of ours in place of a picture. */
  readonly icon?: IconName;
}

export interface PickerQuery {
  readonly search: string;
  readonly tag?: string;
  readonly offset: number;
  readonly limit: number;
}

/** Where a picker's entries come from: any number of them, page by page, what was changed last first. */
export interface PickerSource {
  /** What is picked, one and many: "material", "materials". */
  readonly words: readonly [one: string, many: string];
  readonly page: (query: PickerQuery) => Promise<{ readonly entries: readonly PickerEntry[]; readonly total: number }>;
  readonly tags: () => Promise<readonly TagCount[]>;
}
