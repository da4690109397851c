import { pino } from 'pino';
import { buildApp } from './app';
import { readConfig, type ServerConfig } from './config';
import { seedDemo } from './seed';
import { AssetRepository } from './store/asset-repository';
import { connect, NewerDatabase, prepareDatabase } from './store/database';
import { DocumentRepository } from './store/document-repository';
import { UploadRepository } from './store/upload-repository';
import { roomIn } from './vitals';

const config = settings();
const log = pino({ level: config.logLevel });
try {
  await prepareDatabase(config.databaseUrl, async (database) => {
    const uploads = new UploadRepository(database, new AssetRepository(database));
    if (await seedDemo(new DocumentRepository(database), uploads)) log.info('demo documents are in place');
  });
} catch (error) {
  if (!(error instanceof NewerDatabase)) throw error;
  console.error(error.message);
  process.exit(1);
}
const connection = connect(
  config.databaseUrl,
  (error) => log.warn({ reason: error.message }, 'a database connection was lost'),
  config.connections,
);
const app = await buildApp({ ...config, connection, disk: () => roomIn(config.databaseFolder) });

/** Milliseconds that a request which has begun may go on when the server is to end. */
const LONGEST_FINISH = 10_000;
let stopping = false;
async function stop(signal: string): Promise<void> {
  if (stopping) return;
  stopping = true;
  log.info(`${signal}: finishing what is under way`);
  setTimeout(() => app.server.closeAllConnections(), LONGEST_FINISH).unref();
  await app.close();
  await connection.close();
}
process.once('SIGTERM', (signal) => void stop(signal));
process.once('SIGINT', (signal) => void stop(signal));
// Who started it is gone.
process.once('disconnect', () => void stop('left alone'));
// Hearing of that is no reason to stay.
process.channel?.unref();

try {
  await app.listen({ host: config.host, port: config.port });
} catch (error) {
  if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
  console.error(`Port ${config.port} is taken by another program. Choose another one: PORT=${config.port + 1} npm start`);
  await app.close();
  await connection.close();
  process.exit(1);
}
const address = app.server.address();
process.send?.({ listening: typeof address === 'object' ? address?.port : config.port });

/** Settings that cannot be end the process with a sentence. */
function settings(): ServerConfig {
  try {
    return readConfig(process.env);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    console.error(`${error.message}.`);
    process.exit(1);
  }
}
