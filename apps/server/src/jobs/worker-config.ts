import type { ChildLimits } from './limited-child';

export interface WorkerConfig {
  readonly databaseUrl: string;
  readonly logLevel: string;
  /** Of each job. */
  readonly limits: ChildLimits;
}

/** @throws RangeError for settings that cannot be */
export function readWorkerConfig(environment: NodeJS.ProcessEnv): WorkerConfig {
  const databaseUrl = environment['DATABASE_URL'];
  if (!databaseUrl) throw new RangeError('DATABASE_URL must name the PostgreSQL database of the server whose jobs are to be done');
  return {
    databaseUrl,
    logLevel: environment['LOG_LEVEL'] ?? 'warn',
    limits: { megabytes: whole(environment, 'JOB_MEGABYTES', 4096), seconds: whole(environment, 'JOB_SECONDS', 1800) },
  };
}

function whole(environment: NodeJS.ProcessEnv, name: string, usual: number): number {
  const value = Number(environment[name] ?? usual);
  if (!Number.isInteger(value) || value < 1) throw new RangeError(`${name} must be a whole number from 1`);
  return value;
}
