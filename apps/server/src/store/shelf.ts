import { type ShelfOrder, type ShelfQuery, type TagCount } from '@brelvin/contract';
import { and, arrayContains, asc, desc, ilike, isNotNull, isNull, or, sql, type AnyColumn, type SQL } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Database } from './database';

/** What a table must have to be a shelf of the Library. */
type ShelfTable = PgTable & Readonly<Record<'name' | 'tags' | 'createdAt' | 'updatedAt' | 'deletedAt' | 'sought', PgColumn>>;

/** Conditions that a query puts on the entries of a shelf. */
export function onShelf(table: ShelfTable, { search, tag, deleted = false }: ShelfQuery): (SQL | undefined)[] {
  return [
    deleted ? isNotNull(table.deletedAt) : isNull(table.deletedAt),
    search ? maybe(table, search) : undefined,
    search ? nameOrTag(table, `%${search.replace(/[\\%_]/g, '\\$&')}%`) : undefined,
    tag ? arrayContains(table.tags, [tag]) : undefined,
  ];
}

/** By the index: what has all pairs of letters of a search, somewhere. */
function maybe(table: ShelfTable, search: string): SQL {
  return sql`${table.sought} @> brelvin_sought(${search}, '{}')`;
}

function nameOrTag(table: ShelfTable, pattern: string): SQL | undefined {
  return or(ilike(table.name, pattern), sql`exists (select from unnest(${table.tags}) as tag where tag ilike ${pattern})`);
}

/** The ways to sort a shelf; the key makes them whole. */
export function shelfOrder(table: ShelfTable, key: AnyColumn): Record<ShelfOrder, SQL[]> {
  return {
    changed: [desc(table.updatedAt), asc(key)],
    name: [asc(table.name), asc(key)],
    made: [desc(table.createdAt), asc(key)],
  };
}

/** Tags in use on a shelf, most used first. */
export async function tagsInUse(database: Database, table: ShelfTable, wanted?: SQL): Promise<TagCount[]> {
  const result = await database.execute<{ tag: string; count: number }>(
    sql`select tag, count(*)::int as count from ${table}, unnest(${table.tags}) as tag
        where ${and(wanted, isNull(table.deletedAt))} group by tag order by count desc, tag limit 100`,
  );
  return result.rows.map(({ tag, count }) => ({ tag, count }));
}
