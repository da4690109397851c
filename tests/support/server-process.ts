import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { BrelvinDocument } from '@brelvin/contract';

/** What Node is given to run the server: its sources as they are, or what `npm run build` made of them. */
const PROGRAMS = { sources: ['--import', 'tsx', 'apps/server/src/main.ts'], built: ['apps/server/dist/main.js'] } as const;

const ROOT = fileURLToPath(new URL('../../', import.meta.url));

let made = 0;

/** The real server in a process of its own, on a free port. */
export class ServerProcess {
  private constructor(
    readonly child: ChildProcess,
    readonly port: number,
  ) {}

  static async start(
    databaseUrl: string,
    port = 0,
    settings: Readonly<Record<string, string>> = {},
    program: keyof typeof PROGRAMS = 'sources',
  ): Promise<ServerProcess> {
    const child = spawn(process.execPath, PROGRAMS[program], {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      env: {
        ...process.env,
        TSX_TSCONFIG_PATH: 'apps/server/tsconfig.json',
        DATABASE_URL: databaseUrl,
        PORT: String(port),
        LOG_LEVEL: 'fatal',
        ...settings,
      },
    });
    const listening = await new Promise<number>((resolve, reject) => {
      child.once('message', (message: { listening: number }) => resolve(message.listening));
      child.once('exit', (code) => reject(new Error(`the server ended with ${code} before it listened`)));
    });
    return new ServerProcess(child, listening);
  }

  /** As it runs for its users. */
  static startBuilt(databaseUrl: string): Promise<ServerProcess> {
    return ServerProcess.start(databaseUrl, 0, {}, 'built');
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Ends the process and waits until it is gone; gives its exit code. */
  async stop(signal: NodeJS.Signals = 'SIGTERM'): Promise<number | null> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return this.child.exitCode;
    const ended = new Promise<number | null>((resolve) => this.child.once('exit', resolve));
    this.child.kill(signal);
    return ended;
  }

  /** Keeps a document, under an id of its own or the given one. @returns the id */
  async keep(document: BrelvinDocument, id = `kept${++made}`): Promise<string> {
    const { status, body } = await this.request('POST', '/documents', { id, document });
    if (status !== 201) throw new Error(`${id} was not kept: ${JSON.stringify(body)}`);
    return id;
  }

  async stored<T extends BrelvinDocument>(id: string): Promise<T> {
    return (await this.request('GET', `/documents/${id}`)).body['document'] as T;
  }

  async request(method: string, path: string, body?: unknown): Promise<{ status: number; body: Record<string, unknown> }> {
    const response = await fetch(`${this.address}/api${path}`, {
      method,
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
    const text = await response.text();
    return { status: response.status, body: text ? (JSON.parse(text) as Record<string, unknown>) : {} };
  }
}
