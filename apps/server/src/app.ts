import Fastify, { type FastifyInstance } from 'fastify';
import type { ServerConfig } from './config';
import { JobQueue } from './jobs/job-queue';
import { admission } from './plugins/admission';
import { bodies } from './plugins/bodies';
import { errors } from './plugins/errors';
import { live } from './plugins/live';
import { metrics } from './plugins/metrics';
import { openapi } from './plugins/openapi';
import { pages } from './plugins/pages';
import { security } from './plugins/security';
import { sessions } from './plugins/sessions';
import { assetRoutes } from './routes/assets';
import { budgetRoutes } from './routes/budget';
import { described } from './routes/describe';
import { documentRoutes } from './routes/documents';
import { fileRoutes } from './routes/files';
import { functionRoutes } from './routes/functions';
import { healthRoutes } from './routes/health';
import { jobRoutes } from './routes/jobs';
import { schemaRoutes } from './routes/schemas';
import { thumbnailRoutes } from './routes/thumbnails';
import type { DatabaseConnection } from './store/database';
import { AssetRepository } from './store/asset-repository';
import { DocumentRepository } from './store/document-repository';
import { JobRepository } from './store/job-repository';
import { SettingRepository } from './store/setting-repository';
import { StepListener } from './store/step-listener';
import { UploadRepository } from './store/upload-repository';
import { WorkerRoll } from './store/worker-roll';
import type { Vitals } from './vitals';

/** Bytes of a body, where a route does not say otherwise. */
const SMALL_BODY = 256 * 1024;

export interface AppOptions
  extends
    Pick<ServerConfig, 'logLevel' | 'pages' | 'hosts' | 'databaseUrl'>,
    Partial<Pick<ServerConfig, 'accessKey' | 'trustProxy' | 'requestsPerMinute' | 'requestSeconds'>> {
  readonly connection: DatabaseConnection;
  /** Room on the disk with the database. */
  readonly disk?: Vitals['disk'];
}

/** The HTTP server, ready to listen. */
export async function buildApp({
  connection,
  disk = async () => undefined,
  databaseUrl,
  logLevel,
  pages: root,
  hosts,
  accessKey,
  trustProxy = false,
  requestsPerMinute = 3000,
  requestSeconds = 60,
}: AppOptions): Promise<FastifyInstance> {
  const { database } = connection;
  const documents = new DocumentRepository(database);
  const assets = new AssetRepository(database);
  const uploads = new UploadRepository(database, assets);
  const vitals: Vitals = { pool: () => connection.pool(), files: () => uploads.underWay(), disk };
  const app = Fastify({
    logger: { level: logLevel },
    bodyLimit: SMALL_BODY,
    forceCloseConnections: 'idle',
    trustProxy,
    ...patience(requestSeconds),
  });
  await app.register(errors);
  await app.register(bodies);
  // All servers on one database share its address, which nobody else knows; with the key, changing it signs everybody out.
  await app.register(sessions, { secret: `${databaseUrl} ${accessKey ?? ''}` });
  await app.register(security, { hosts: ['127.0.0.1', 'localhost', '[::1]', ...hosts], requestsPerMinute });
  await app.register(admission, { accessKey });
  await app.register(metrics, vitals);
  await app.register(described);
  await app.register(openapi);
  await app.register(live, { listener: new StepListener(databaseUrl) });
  await app.register(
    async (api) => {
      await api.register(healthRoutes, { database, vitals, workers: new WorkerRoll(database) });
      await api.register(documentRoutes, { documents });
      await api.register(thumbnailRoutes, { documents });
      await api.register(assetRoutes, { assets, uploads });
      await api.register(functionRoutes, { documents });
      await api.register(fileRoutes, { documents, assets });
      await api.register(budgetRoutes, { settings: new SettingRepository(database) });
      await api.register(jobRoutes, {
        documents,
        jobs: new JobRepository(database),
        queue: new JobQueue(databaseUrl, (error) => app.log.warn(error.message)),
      });
      await api.register(schemaRoutes);
    },
    { prefix: '/api' },
  );
  await app.register(pages, { root });
  return app;
}

/** A request that is sent drop by drop ends, and so does a connection that nobody uses. */
function patience(requestSeconds: number): object {
  const requestTimeout = requestSeconds * 1000;
  return {
    requestTimeout,
    connectionTimeout: requestTimeout * 2,
    keepAliveTimeout: requestTimeout / 2,
    http: { headersTimeout: requestTimeout, connectionsCheckingInterval: Math.min(requestTimeout / 2, 30_000) },
  };
}
