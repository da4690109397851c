import { benchAuthors } from './authors';
import { benchCode } from './code';
import { benchDecode } from './decode';
import { benchEditing } from './editing';
import { benchFiles } from './files';
import { benchJobs } from './jobs';
import { benchOpening } from './opening';
import { benchPage } from './page';
import { Report } from './report';
import { benchStore } from './store';
import { benchTargets } from './targets';

const report = new Report();
console.log('Medians, with the middle half of the measurements in brackets.\n');
const parts: readonly (readonly [string, (report: Report) => void | Promise<void>])[] = [
  ['page', benchPage],
  ['decode', benchDecode],
  ['editing', benchEditing],
  ['code', benchCode],
  ['files', benchFiles],
  ['store', benchStore],
  ['authors', benchAuthors],
  ['opening', benchOpening],
  ['targets', benchTargets],
  ['jobs', benchJobs],
];
// npm run bench -- store: this part alone.
const only = process.argv[2];
for (const [name, measure] of parts.filter(([name]) => only === undefined || name === only))
  try {
    await measure(report);
  } catch (error) {
    report.failed(name, error);
  }
console.log(report.allWithin ? '\nAll within their bounds.' : '\nSome beyond their bounds, or not measured.');
process.exitCode = report.allWithin ? 0 : 1;
