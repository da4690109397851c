import type { Material } from '@brelvin/contract';
import { PLAIN_RIG } from '../../support/seeded-database';
import type { ServerProcess } from '../../support/server-process';

let made = 0;

/** A copy of a demo material that is seen under the rig that draws quickest, for specs of what is not light. */
export async function underPlainDay(server: ServerProcess, id: string): Promise<string> {
  const demo = (await server.request('GET', `/documents/${id}`)).body['document'] as Material;
  const copy = `${id}-plain-${++made}`;
  const document: Material = { ...demo, seenIn: { ...demo.seenIn, rig: PLAIN_RIG } };
  const { status } = await server.request('POST', '/documents', { id: copy, document });
  expect(status).toBe(201);
  return copy;
}
