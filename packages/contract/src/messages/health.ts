import { count, described, either, flag, none, object, optional, text, type TypeOf } from '../schema/schema';

const bytes = described(count, 'Bytes.');

export const ALIVE = object({ ok: flag });

/** Whether the server can serve, with numbers. */
export const HEALTH = object({
  ok: flag,
  error: optional(text(100)),
  message: optional(text(1000)),
  database: object({ milliseconds: count, bytes }),
  connections: object({ open: count, idle: count, waiting: count }),
  files: object({ checked: count, waiting: count }),
  disk: either([object({ free: bytes, size: bytes }), none], 'bytes of the disk with the database, or null'),
  memory: object({ bytes }),
  /** Workers that draw; without any, pictures for the Library come from pages alone. */
  workers: object({ drawing: count, message: optional(text(1000)) }),
  seconds: count,
});

export interface Health extends TypeOf<typeof HEALTH> {}
