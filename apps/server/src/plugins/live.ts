import { type Told, validate, type Watch, WATCH } from '@brelvin/contract';
import websocket, { type WebSocket } from '@fastify/websocket';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import type { StepListener } from '../store/step-listener';

/** Windows of one person that are told at once. */
const MOST_WINDOWS = 64;
/** Bytes that wait for one window. */
const MOST_UNREAD = 1024 * 1024;
/** Milliseconds between two words on the shelves: a studio at work changes them all the time. */
const SHELVES_MS = 1000;
/** A WebSocket's code for it, RFC 6455's registry. */
const TRY_LATER = 1013;

/**
 * Tells open windows what happens to documents. A window says `{"watch": [ids]}`; it gets `{"id", "step"}` whenever one of
 * them has a new step, `{"id", "named"}` for a version, `{"id", "deleted"}` and `{"id", "restored"}`, by whichever server on
 * the database it came. One that says `{"shelves": true}` gets the same back when anything was made, changed, deleted or
 * restored: it lists them anew. One that says `{"jobs": [ids]}` gets `{"job", "state", "progress"}` as they go on.
 */
export const live = plugin(async (app: FastifyInstance, { listener }: { listener: StepListener }) => {
  await app.register(websocket, { options: { maxPayload: 128 * 1024 } });
  const watching = new Map<WebSocket, Watched>();
  const say = (message: Told, isFor: (watched: Watched) => boolean): void => {
    const text = JSON.stringify(message);
    for (const [socket, watched] of watching) {
      if (!isFor(watched)) continue;
      // Who does not read does not fill the memory; it asks again when it comes back.
      if (socket.bufferedAmount > MOST_UNREAD) socket.terminate();
      else socket.send(text);
    }
  };
  let shelves: ReturnType<typeof setTimeout> | undefined;
  listener.onNews = (news) => {
    if ('job' in news) {
      say(news, ({ jobs }) => jobs.has(news.job));
      return;
    }
    if ('id' in news) say(news, ({ ids }) => ids.has(news.id));
    shelves ??= setTimeout(() => {
      shelves = undefined;
      say({ shelves: true }, (watched) => watched.shelves);
    }, SHELVES_MS).unref();
  };
  // After the database was away, nobody knows what was missed: everything is told to look again.
  listener.onBack = () => say({ again: true }, () => true);
  const counts = new Map<string, number>();
  app.get('/api/live', { websocket: true, schema: { hide: true } }, (socket, { person }) => {
    const open = counts.get(person) ?? 0;
    if (open >= MOST_WINDOWS) return socket.close(TRY_LATER, `There are ${open} windows open already.`);
    counts.set(person, open + 1);
    socket.once('close', () => {
      const left = (counts.get(person) ?? 1) - 1;
      if (left > 0) counts.set(person, left);
      else counts.delete(person);
    });
    watching.set(socket, NOTHING);
    socket.on('message', (data: Buffer) => {
      const wanted = readWatch(data.toString('utf8'));
      if (wanted) watching.set(socket, wanted);
    });
    socket.on('close', () => watching.delete(socket));
    socket.on('error', () => watching.delete(socket));
  });
  app.addHook('onReady', () => listener.start());
  app.addHook('preClose', () => listener.stop());
});

interface Watched {
  readonly ids: ReadonlySet<string>;
  readonly jobs: ReadonlySet<string>;
  readonly shelves: boolean;
}

const NOTHING: Watched = { ids: new Set(), jobs: new Set(), shelves: false };

/** What a message asks to watch; one that cannot be read changes nothing. */
function readWatch(text: string): Watched | undefined {
  try {
    const asked = JSON.parse(text) as Watch;
    if (validate(WATCH, asked).length > 0) return undefined;
    return { ids: new Set(asked.watch), jobs: new Set(asked.jobs), shelves: asked.shelves === true };
  } catch {
    return undefined;
  }
}
