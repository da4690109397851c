/** Where a command writes: results on `out`, trouble on `err`. */
export interface Output {
  out(line: string): void;
  err(line: string): void;
}

export const CONSOLE: Output = {
  out: (line) => process.stdout.write(`${line}\n`),
  err: (line) => process.stderr.write(`${line}\n`),
};

/** 0 fine, 1 findings or bad input, 2 wrong usage. */
export type ExitCode = 0 | 1 | 2;
