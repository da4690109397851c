import { fileURLToPath } from 'node:url';
import { runInPage } from '../support/device-page';
import type { FrameFigures } from './frames';
import { spread } from './measure';
import type { Report } from './report';

/** Runs what a page does in a real page, and reports it. */
export async function benchPage(report: Report): Promise<void> {
  const figures = await runInPage<FrameFigures>(fileURLToPath(new URL('./frames.ts', import.meta.url)));
  const { growth, compile, changes } = figures.core;
  report.bound('compile time, 5,000 / 500 nodes', growth, 11);
  report.figure('compiling 2,000 nodes, off the main thread, ms', spread(compile));
  report.bound('a changed number at 200 nodes, our share of the main thread, ms', spread(changes), 1);
  for (const { name, ratios, milliseconds } of figures.pairs) {
    report.bound(`frame 512 × 512, generated / hand-written ${name}`, spread(ratios), 1.05);
    report.figure(`that frame, generated, ms`, spread(milliseconds));
  }
  for (const { lights, milliseconds } of figures.byLights)
    report.figure(`frame 512 × 512, Blinn-Phong, ${lights}, ms`, spread(milliseconds));
  for (const { name, milliseconds } of figures.previews) report.figure(`${name}, ms`, spread(milliseconds));
  for (const { name, milliseconds } of figures.demos) report.figure(`frame 512 × 512 of ${name} in its set, ms`, spread(milliseconds));
  report.figure('an environment of 1024 × 512 filtered for all roughnesses, ms', spread(figures.prefilter));
  report.bound('our share of structure changed → new picture, 200 nodes', spread(figures.compileShare), 0.1);
  report.bound('picture after a changed number / the frame alone', spread(figures.changedOverAlone), 1.2);
}
