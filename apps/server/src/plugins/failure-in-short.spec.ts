import { sql } from 'drizzle-orm';
import { TestServer } from '../testing/test-server';
import { inShort } from './failure-in-short';

describe('What the log keeps of a failure', () => {
  it('is what went wrong and where, never what somebody was making', async () => {
    const server = await TestServer.start();
    const secret = 'the recipe of the glaze '.repeat(1000);
    const failed = await server.connection.database
      .execute(sql`insert into steps (document, step, transaction, label, changes) values ('nobody', 1, 'a', ${secret}, '[]')`)
      .catch((error: unknown) => error as Error);
    expect(failed instanceof Error && failed.message.includes('recipe'))
      .withContext('the failure itself holds it')
      .toBeTrue();
    const kept = JSON.stringify(inShort(failed as Error));
    expect(kept).not.toContain('recipe');
    expect(kept).toContain('23503');
    expect(kept.length).toBeLessThan(3000);
    await server.stop();
  });

  it('is short, whatever the failure says', () => {
    const { message, name } = inShort(new RangeError('x'.repeat(10_000)));
    expect([name, message.length]).toEqual(['RangeError', 302]);
  });
});
