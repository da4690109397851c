import { main } from './main';

// A program that runs this for itself may die: nobody waits for what is made then.
process.once('disconnect', () => process.exit(1));
process.channel?.unref();
process.exitCode = await main(process.argv.slice(2));
