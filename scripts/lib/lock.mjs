import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/**
 * A file that says which process owns something. Its owner is told apart from a later process of the same number by when it
 * began.
 */
export class Lock {
  constructor(file) {
    this.file = file;
  }

  /** Takes the lock; gives what its owner wrote where another one has it. */
  take(says = {}) {
    mkdirSync(dirname(this.file), { recursive: true });
    for (;;) {
      try {
        writeFileSync(this.file, this.text(says), { flag: 'wx' });
        return undefined;
      } catch (error) {
        if (error.code !== 'EEXIST') throw error;
      }
      const owner = this.owner();
      if (owner) return owner;
      // Left behind by a process that is gone.
      rmSync(this.file, { force: true });
    }
  }

  /** Tells more of itself. */
  say(says) {
    writeFileSync(this.file, this.text(says));
  }

  release() {
    rmSync(this.file, { force: true });
  }

  /** What the owner said, as long as it lives. */
  owner() {
    try {
      const said = JSON.parse(readFileSync(this.file, 'utf8'));
      return beganAt(said.pid) === said.began ? said : undefined;
    } catch {
      return undefined;
    }
  }

  text(says) {
    return JSON.stringify({ pid: process.pid, began: beganAt(process.pid), ...says });
  }
}

/** When a process began, in ticks since the machine did; nothing for one that is not there, or that only waits to be buried. */
export function beganAt(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // After the name, which may hold anything: state is the third field, the beginning the 22nd.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return fields[0] === 'Z' ? undefined : fields[19];
  } catch {
    return undefined;
  }
}
