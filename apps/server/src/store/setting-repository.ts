import type { Budget } from '@brelvin/contract';
import { eq } from 'drizzle-orm';
import type { Database } from './database';
import { settings } from './schema';

const BUDGET_NAME = 'budget';

/** What holds for all of the workspace. */
export class SettingRepository {
  constructor(private readonly database: Database) {}

  async budget(): Promise<Budget> {
    const [row] = await this.database.select().from(settings).where(eq(settings.name, BUDGET_NAME));
    return row?.value ?? {};
  }

  async setBudget(value: Budget): Promise<Budget> {
    const target = settings.name;
    await this.database.insert(settings).values({ name: BUDGET_NAME, value }).onConflictDoUpdate({ target, set: { value } });
    return value;
  }
}
