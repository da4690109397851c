import { spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';

/** How much a child may take. */
export interface ChildLimits {
  /** Of memory that is really there. */
  readonly megabytes: number;
  readonly seconds: number;
}

export interface ChildEnd {
  readonly code: number | null;
  /** What it wrote where errors go, its end. */
  readonly errors: string;
  /** Why it was ended from here, or that it fell over. */
  readonly fault?: string;
}

const LOOK_MS = 500;
/** Of what it says, the end tells why it ended. */
const MOST_WORDS = 4000;

/** Runs a program of ours apart from here, so that whatever befalls it befalls it alone. */
export function runLimited(
  args: readonly string[],
  { megabytes, seconds }: ChildLimits,
  { onLine, stop }: { readonly onLine: (line: string) => void; readonly stop: AbortSignal },
): Promise<ChildEnd> {
  const child = spawn(process.execPath, [`--max-old-space-size=${megabytes}`, ...args], { stdio: ['ignore', 'pipe', 'pipe', 'ipc'] });
  let fault: string | undefined;
  let [errors, rest] = ['', ''];
  const end = (why: string | undefined): void => {
    fault ??= why;
    child.kill('SIGKILL');
  };
  const onStop = (): void => end(undefined);
  stop.addEventListener('abort', onStop, { once: true });
  if (stop.aborted) onStop();
  const deadline = setTimeout(() => end(`It took longer than ${seconds} s, and was ended.`), seconds * 1000);
  const watch = setInterval(() => {
    void residentMegabytes(child.pid).then((used) => {
      if (used > megabytes) end(`It took more than ${megabytes} MiB of memory, and was ended.`);
    });
  }, LOOK_MS);
  child.stdout?.setEncoding('utf8').on('data', (text: string) => {
    const lines = `${rest}${text}`.split('\n');
    rest = lines.pop() ?? '';
    lines.forEach(onLine);
  });
  child.stderr?.setEncoding('utf8').on('data', (text: string) => (errors = `${errors}${text}`.slice(-MOST_WORDS)));
  return new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('close', (code, signal) => {
      stop.removeEventListener('abort', onStop);
      clearTimeout(deadline);
      clearInterval(watch);
      const fell = code === null && !stop.aborted ? `It fell over (${signal}).` : undefined;
      resolve({ code, errors: errors.trim(), fault: fault ?? fell });
    });
  });
}

/** What a process takes of memory; 0 where that cannot be told. */
async function residentMegabytes(pid: number | undefined): Promise<number> {
  const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
  return Number(/^VmRSS:\s+(\d+) kB/m.exec(status)?.[1] ?? 0) / 1024;
}
