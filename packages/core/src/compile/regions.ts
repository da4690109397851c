import { LONGEST_NAME } from '@brelvin/contract';
import type { ResolvedNode } from './resolve';

/** A region of a field, as a graph names it. */
export interface NamedRegion {
  readonly name: string;
  readonly number: number;
}

/** The regions that nodes of a graph name, numbered from 1; nodes of one name are one region. */
export class Regions {
  private readonly byName = new Map<string, number>();

  /** @param node of kind `fieldRegion`; it is called as its region is */
  numberOf({ node, kind }: Pick<ResolvedNode, 'node' | 'kind'>): number {
    const name = (node?.name ?? kind.title).slice(0, LONGEST_NAME).trim() || kind.title;
    const known = this.byName.get(name) ?? this.byName.size + 1;
    this.byName.set(name, known);
    return known;
  }

  get named(): readonly NamedRegion[] {
    return [...this.byName].map(([name, number]) => ({ name, number }));
  }
}
