import type { Material } from '@brelvin/contract';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { ServerProcess } from '../../support/server-process';

/** A copy of a demo material that is seen under the rig that draws quickest, for specs of what is not light. */
export async function underPlainDay(server: ServerProcess, id: string): Promise<string> {
  const demo = await server.stored<Material>(id);
  return server.keep({ ...demo, seenIn: { ...demo.seenIn, rig: PLAIN_RIG } });
}
