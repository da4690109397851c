#!/usr/bin/env node
import { register } from 'tsx/esm/api';

register();
// A program that runs this for itself may die: nobody waits for what is made then.
process.once('disconnect', () => process.exit(1));
process.channel?.unref();
const { main } = await import('../src/main.ts');
process.exitCode = await main(process.argv.slice(2));
