import { drawnNow, keep } from './sheet';

// Keeps the demos as they are drawn now. Look at the sheet before it is committed.
const pictures = await drawnNow();
keep(pictures);
console.log(`${pictures.length} pictures kept.`);
