/** Builds pages and server for a place where only they are run. */
import { buildPages, buildServer, embedShaders } from './lib/build.mjs';

embedShaders();
buildPages();
await buildServer();
