import { fileURLToPath } from 'node:url';

export interface ServerConfig {
  readonly host: string;
  readonly port: number;
  readonly databaseUrl: string;
  /** Connections to the database that one server holds at most. */
  readonly connections: number;
  /** The built web application. */
  readonly pages: string;
  readonly logLevel: string;
  /** Further values of the Host header to answer to, e.g. behind a proxy. */
  readonly hosts: readonly string[];
}

/** @throws RangeError for settings that can not be */
export function readConfig(environment: NodeJS.ProcessEnv): ServerConfig {
  const port = Number(environment['PORT'] ?? 4310);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new RangeError('PORT must be a whole number from 0 to 65535');
  const databaseUrl = environment['DATABASE_URL'];
  if (!databaseUrl) throw new RangeError('DATABASE_URL must name a PostgreSQL database; "npm start" makes one and sets it');
  const connections = Number(environment['DATABASE_CONNECTIONS'] ?? 20);
  if (!Number.isInteger(connections) || connections < 1 || connections > 1000)
    throw new RangeError('DATABASE_CONNECTIONS must be a whole number from 1 to 1000');
  return {
    connections,
    host: environment['HOST'] ?? '127.0.0.1',
    port,
    databaseUrl,
    pages: environment['PAGES'] ?? fileURLToPath(new URL('../../bench/dist/browser', import.meta.url)),
    logLevel: environment['LOG_LEVEL'] ?? 'info',
    hosts: (environment['ALLOWED_HOSTS'] ?? '').split(',').filter(Boolean),
  };
}
