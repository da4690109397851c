import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { generatedEnvironment, readRadiance, writeRadiance } from '@brelvin/core';
import { spread } from './measure';
import type { Report } from './report';

const ROUNDS = 9;

/** Reading a high-range panorama, beside a command-line tool that reads the same file; its process start is taken out. */
export function benchDecode(report: Report): void {
  const folder = mkdtempSync(join(tmpdir(), 'decode-'));
  try {
    const file = writeRadiance(generatedEnvironment('quay-at-dusk', 2048));
    writeFileSync(join(folder, 'large.hdr'), file);
    writeFileSync(join(folder, 'small.hdr'), writeRadiance(generatedEnvironment('quay-at-dusk', 16)));
    const tool = (name: string): number =>
      timed(() => execFileSync('sh', ['-c', `pfsinrgbe ${name} > /dev/null`], { cwd: folder, stdio: ['ignore', 'ignore', 'ignore'] }));
    const [ours, ratios]: [number[], number[]] = [[], []];
    for (let round = 0; round < ROUNDS; round++) {
      const read = timed(() => readRadiance(file, 2048));
      const theirs = Math.max(tool('large.hdr') - tool('small.hdr'), 0.1);
      if (round < 2) continue;
      ours.push(read);
      ratios.push(read / theirs);
    }
    report.figure('reading a Radiance panorama of 2048 × 1024, ms', spread(ours));
    report.figure('that, beside a native command-line tool', spread(ratios));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

function timed(work: () => unknown): number {
  const started = performance.now();
  work();
  return performance.now() - started;
}
