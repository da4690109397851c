import { fileURLToPath } from 'node:url';

/** Beside the sources, and beside what they are built to: both lie in folders of the server's. */
export const MIGRATIONS = fileURLToPath(new URL('../drizzle', import.meta.url));
/** A picture of each demo material, PNG. */
export const DEMO_PICTURES = fileURLToPath(new URL('../demo-pictures', import.meta.url));
/** The built web application. */
export const PAGES = fileURLToPath(new URL('../../bench/dist/browser', import.meta.url));
/** Draws in a process of its own; built with the server. */
export const COMMAND_LINE = fileURLToPath(new URL('../../cli/dist/run.js', import.meta.url));
