import { hostname } from 'node:os';
import { pino } from 'pino';
import { COMMAND_LINE } from './folders';
import { readWorkerConfig, type WorkerConfig } from './jobs/worker-config';
import { runLimited } from './jobs/limited-child';
import { Worker } from './jobs/worker';
import { connect, NewerDatabase, prepareDatabase } from './store/database';

const config = settings();
const log = pino({ level: config.logLevel });

// One sentence says what is missing, before anybody relies on this worker.
const { code, errors } = await runLimited([COMMAND_LINE, 'device'], config.limits, {
  onLine: (line) => log.info(line),
  stop: new AbortController().signal,
});
if (code !== 0) end(errors || 'This machine cannot draw.');

await prepareDatabase(config.databaseUrl).catch((error: unknown) => {
  if (!(error instanceof NewerDatabase)) throw error;
  end(error.message);
});
const connection = connect(config.databaseUrl, (error) => log.warn({ reason: error.message }, 'a database connection was lost'), 6);
const worker = new Worker({
  database: connection.database,
  databaseUrl: config.databaseUrl,
  name: `${hostname()} ${process.pid}`,
  limits: config.limits,
  log: (words, job) => log.info({ job }, words),
  // Others do its jobs from now on. Whoever keeps it running starts another.
  onLost: () => end('The database was lost; others do what was under way.'),
});
await worker.start();
console.log('The worker waits for jobs.');
process.send?.({ working: true });

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  await worker.stop();
  await connection.close();
  process.exit(0);
}
process.once('SIGTERM', () => void stop());
process.once('SIGINT', () => void stop());
process.once('disconnect', () => void stop());
process.channel?.unref();

function end(words: string): never {
  console.error(words);
  process.exit(1);
}

/** Settings that cannot be end the process with a sentence. */
function settings(): WorkerConfig {
  try {
    return readWorkerConfig(process.env);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    end(`${error.message}.`);
  }
}
