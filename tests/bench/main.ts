import { benchCode } from './code';
import { benchDecode } from './decode';
import { benchEditing } from './editing';
import { benchFiles } from './files';
import { benchPage } from './page';
import { Report } from './report';
import { benchStore } from './store';

const report = new Report();
console.log('Medians, with the middle half of the measurements in brackets.\n');
await benchPage(report);
benchDecode(report);
await benchEditing(report);
await benchCode(report);
await benchFiles(report);
await benchStore(report);
console.log(report.allWithin ? '\nAll within their bounds.' : '\nSome beyond their bounds.');
process.exitCode = report.allWithin ? 0 : 1;
