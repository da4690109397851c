import type { Check, CheckInput, Finding } from './check';

/** Instructions, reads or milliseconds beyond what the workspace allows. */
export const overBudget: Check = {
  id: 'over-budget',
  find: checkBudget,
};

/** What is beyond a budget, by what is known of the cost. */
export function checkBudget(spent: Pick<CheckInput, 'budget' | 'cost' | 'milliseconds'>): readonly Omit<Finding, 'check'>[] {
  return boundsOf(spent).flatMap(({ what, spent: found, bound, explanation }) =>
    found !== undefined && bound !== undefined && found > bound
      ? [{ place: `budget/${what}`, title: `${words(found)} ${what} where ${words(bound)} are allowed.`, explanation }]
      : [],
  );
}

interface Bound {
  readonly what: string;
  readonly spent?: number;
  readonly bound?: number;
  readonly explanation: string;
}

const ESTIMATED =
  'Counted at each pixel from the program, without shadows and occlusion, on the dearest of its ways. The tab cost says which nodes take most. Take out what is not seen, carry what changes evenly from the vertices, or allow more there.';

function boundsOf({ cost, milliseconds, budget = {} }: Pick<CheckInput, 'budget' | 'cost' | 'milliseconds'>): readonly Bound[] {
  return [
    { what: 'instructions', spent: cost?.pixel.instructions, bound: budget.instructions, explanation: ESTIMATED },
    { what: 'reads of images', spent: cost?.pixel.reads, bound: budget.reads, explanation: ESTIMATED },
    {
      what: 'milliseconds',
      spent: milliseconds,
      bound: budget.milliseconds,
      explanation:
        'Measured on this machine, and turned into a picture of 1920 × 1080 by its pixels. The tab cost says which passes take most: fewer lights that throw shadows, less behind glass, or a smaller program help.',
    },
  ];
}

function words(value: number): string {
  return value >= 100 || Number.isInteger(value) ? Math.round(value).toLocaleString('en') : value.toPrecision(2);
}
