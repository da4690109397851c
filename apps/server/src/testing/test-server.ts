import type { Json, Transaction } from '@brelvin/contract';
import { newMaterial } from '@brelvin/core';
import type { FastifyInstance, LightMyRequestResponse } from 'fastify';
import { freshDatabase } from '../../../../tests/support/databases';
import { buildApp, type AppOptions } from '../app';
import { connect, prepareDatabase, type DatabaseConnection } from '../store/database';

/** The server on a fresh database of a real PostgreSQL, asked without a network. */
export class TestServer {
  private made = 0;

  private constructor(
    readonly app: FastifyInstance,
    readonly connection: DatabaseConnection,
    readonly databaseUrl: string,
  ) {}

  static async start(options: Partial<AppOptions> = {}): Promise<TestServer> {
    const databaseUrl = await freshDatabase();
    await prepareDatabase(databaseUrl);
    const connection = connect(databaseUrl, () => undefined);
    const app = await buildApp({ connection, databaseUrl, logLevel: 'silent', pages: '/nowhere', hosts: [], ...options });
    return new TestServer(app, connection, databaseUrl);
  }

  async stop(): Promise<void> {
    await this.app.close();
    await this.connection.close();
  }

  send(
    method: 'GET' | 'PATCH' | 'POST' | 'PUT' | 'DELETE',
    url: string,
    payload?: object | string | Buffer,
    headers: Record<string, string> = {},
  ): Promise<LightMyRequestResponse> {
    return this.app.inject({ method, url: `/api${url}`, payload, headers: { host: '127.0.0.1:4310', ...headers } });
  }

  /** Makes a material; gives its id. */
  async fresh(name = 'Lantern'): Promise<string> {
    const id = `m${++this.made}`;
    const answer = await this.send('POST', '/documents', { id, document: newMaterial(name) });
    if (answer.statusCode !== 201) throw new Error(answer.body);
    return id;
  }

  append(id: string, after: number, ...steps: Transaction[]): Promise<LightMyRequestResponse> {
    return this.send('POST', `/documents/${id}/steps`, { after, steps });
  }
}

/** A step that sets one value, or takes it away. */
export function step(id: string, path: string[], value?: Json): Transaction {
  return { id, label: `Set ${path.join('.')}`, changes: [value === undefined ? { path } : { path, value }] };
}
