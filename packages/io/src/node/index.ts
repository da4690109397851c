/** What reads and writes files where there is no page. */

export { nodeBinaries } from './binaries';
export { demoEnvironments, demoImages, demoWithFiles, type DemoFile } from './demo-files';
export { pngFile } from './png-file';
