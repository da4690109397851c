import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { Vitals } from '../vitals';

/** Numbers of the server at `/metrics`, as Prometheus reads them. Addresses are counted by their route: no ids, no names. */
export const metrics = plugin(async (app: FastifyInstance, { pool, files, disk }: Vitals) => {
  const registers = [new Registry()];
  const [registry] = registers as [Registry];
  collectDefaultMetrics({ register: registry });
  const seconds = new Histogram({
    name: 'brelvin_request_seconds',
    help: 'Time until an answer was sent',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10],
    registers,
  });
  new Gauge({
    name: 'brelvin_database_connections',
    help: 'Connections to the database, and requests that wait for one',
    labelNames: ['state'],
    registers,
    collect() {
      for (const [state, count] of Object.entries(pool())) this.set({ state }, count);
    },
  });
  new Gauge({
    name: 'brelvin_files',
    help: 'Files that are being checked, and that wait for it',
    labelNames: ['state'],
    registers,
    collect() {
      for (const [state, count] of Object.entries(files())) this.set({ state }, count);
    },
  });
  new Gauge({
    name: 'brelvin_disk_free_bytes',
    help: 'Room on the disk with the database, where that is this machine',
    registers,
    async collect() {
      const room = await disk();
      if (room) this.set(room.free);
      else this.remove();
    },
  });
  app.addHook('onResponse', async ({ method, routeOptions }, reply) =>
    seconds.observe({ method, route: routeOptions.url ?? 'none', status: reply.statusCode }, reply.elapsedTime / 1000),
  );
  app.get('/metrics', { schema: { hide: true } }, async (_request, reply) =>
    reply.type(registry.contentType).send(await registry.metrics()),
  );
});
