/** What a piece of a program asks of a device, each time it runs. */
export interface Cost {
  /** Scalar additions, multiplications and comparisons; what else there is counts as several, see `instructionsOf`. */
  readonly instructions: number;
  /** Reads of images, each filtered as it may be. */
  readonly reads: number;
}

export const FREE: Cost = { instructions: 0, reads: 0 };

export function addCosts(...costs: readonly Cost[]): Cost {
  let [instructions, reads] = [0, 0];
  for (const cost of costs) {
    instructions += cost.instructions;
    reads += cost.reads;
  }
  return { instructions, reads };
}

/** Of the same thing several times. */
export function timesCost({ instructions, reads }: Cost, times: number): Cost {
  return { instructions: instructions * times, reads: reads * times };
}

/** Which is dearer: a read of an image is taken for as many instructions as hide its way from memory in a cache. */
export function dearer(a: Cost, b: Cost): Cost {
  return weightOfCost(a) >= weightOfCost(b) ? a : b;
}

const INSTRUCTIONS_OF_A_READ = 16;

/** One number to sort by. */
export function weightOfCost({ instructions, reads }: Cost): number {
  return instructions + reads * INSTRUCTIONS_OF_A_READ;
}
