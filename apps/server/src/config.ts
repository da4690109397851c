import { PAGES } from './folders';

export interface ServerConfig {
  readonly host: string;
  readonly port: number;
  readonly databaseUrl: string;
  /** Where the database lies, if on this machine: how much room there is left is told. */
  readonly databaseFolder?: string;
  /** Connections to the database that one server holds at most. */
  readonly connections: number;
  /** The built web application. */
  readonly pages: string;
  readonly logLevel: string;
  /** Further values of the Host header to answer to, e.g. behind a proxy. */
  readonly hosts: readonly string[];
  /** Requests of one browser, or of one address without a session. */
  readonly requestsPerMinute: number;
  /** Seconds within which a request must have come whole. */
  readonly requestSeconds: number;
  /** Whether the address of whoever asks is taken from a proxy's words (X-Forwarded-For). */
  readonly trustProxy: boolean;
  /** What all who may come in know; without it only this machine is served. */
  readonly accessKey?: string;
}

const LOOPBACK = /^(localhost|127\.\d+\.\d+\.\d+|::1|\[::1\])$/;
const EVERYWHERE = /^(0\.0\.0\.0|::|\[::\])$/;
const SHORTEST_KEY = 16;

/** @throws RangeError for settings that cannot be */
export function readConfig(environment: NodeJS.ProcessEnv): ServerConfig {
  const port = Number(environment['PORT'] ?? 4310);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new RangeError('PORT must be a whole number from 0 to 65535');
  const databaseUrl = environment['DATABASE_URL'];
  if (!databaseUrl) throw new RangeError('DATABASE_URL must name a PostgreSQL database; "npm start" makes one and sets it');
  const host = environment['HOST'] ?? '127.0.0.1';
  const accessKey = environment['ACCESS_KEY'] || undefined;
  if (accessKey !== undefined && accessKey.length < SHORTEST_KEY)
    throw new RangeError(`ACCESS_KEY must have at least ${SHORTEST_KEY} characters`);
  if (accessKey === undefined && !LOOPBACK.test(host))
    throw new RangeError(
      `HOST=${host} can be reached from other machines, and everybody there could read and change everything. Set ACCESS_KEY to a secret of at least ${SHORTEST_KEY} characters for those who may, or leave HOST out`,
    );
  return {
    connections: wholeNumber(environment, 'DATABASE_CONNECTIONS', 20, 1000),
    requestsPerMinute: wholeNumber(environment, 'REQUESTS_PER_MINUTE', 3000, 1_000_000),
    requestSeconds: wholeNumber(environment, 'REQUEST_SECONDS', 60, 3600),
    trustProxy: environment['TRUST_PROXY'] === '1',
    accessKey,
    databaseFolder: environment['DATABASE_FOLDER'] || undefined,
    host,
    port,
    databaseUrl,
    pages: environment['PAGES'] ?? PAGES,
    logLevel: environment['LOG_LEVEL'] ?? 'info',
    // What it was told to listen to it answers to; of all addresses at once there is no name.
    hosts: [
      ...(LOOPBACK.test(host) || EVERYWHERE.test(host) ? [] : [host]),
      ...(environment['ALLOWED_HOSTS'] ?? '').split(',').filter(Boolean),
    ],
  };
}

function wholeNumber(environment: NodeJS.ProcessEnv, name: string, usual: number, most: number): number {
  const value = Number(environment[name] ?? usual);
  if (!Number.isInteger(value) || value < 1 || value > most) throw new RangeError(`${name} must be a whole number from 1 to ${most}`);
  return value;
}
