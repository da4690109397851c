import { BUDGET, validate, type Budget, type Material } from '@brelvin/contract';
import { checkBudget, library, materialCost, type Library } from '@brelvin/core';
import { randomUUID } from 'node:crypto';
import { drawnScene } from './pictures/drawn-scene';
import { readScene } from './pictures/scene-file';
import { withStudio } from './pictures/studio';
import type { Output } from './output';

/** What a budget on the command line bounds, and under how many lights. */
export interface CheckedBudget extends Budget {
  readonly lights: number;
}

const NAMES = { instructions: 'instructions', reads: 'reads', ms: 'milliseconds', lights: 'lights' } as const;
/** What milliseconds are counted for. */
const FULL_SIZE = { width: 1920, height: 1080 };
const QUIET: Output = { out: () => undefined, err: () => undefined };

/** `reads=16,instructions=2000,ms=4,lights=3`. @throws RangeError with words for the user */
export function budgetOf(text: string): CheckedBudget {
  const numbers: Partial<Record<(typeof NAMES)[keyof typeof NAMES], number>> = {};
  for (const each of text.split(',')) {
    const [name = '', value = ''] = each.split('=');
    const known = NAMES[name as keyof typeof NAMES];
    if (!known || value.trim() === '' || !Number.isFinite(Number(value)))
      throw new RangeError(
        `“${each}” bounds nothing. Write reads=16, instructions=2000 or ms=4, with commas between, and lights=3 for more lights than one.`,
      );
    numbers[known] = Number(value);
  }
  const { lights = 1, ...budget } = numbers;
  const [problem] = validate(BUDGET, budget);
  if (problem) throw new RangeError(`${problem.place}: ${problem.message}`);
  if (!Number.isInteger(lights) || lights < 0 || lights > 8) throw new RangeError('lights: must be a whole number from 0 to 8.');
  return { ...budget, lights };
}

/** What of a material is beyond a budget, in words. Milliseconds are measured by drawing it here. @throws BadFile */
export async function beyondBudget(
  file: string,
  material: Material,
  { lights, ...budget }: CheckedBudget,
  known: Library = library(),
): Promise<readonly string[]> {
  const cost = materialCost(material, known, { lights, lit: 'plain', newId: randomUUID });
  if ('problems' in cost) return [];
  const milliseconds = budget.milliseconds === undefined ? undefined : await measured(file);
  return checkBudget({ budget, cost, milliseconds }).map(({ title }) => title);
}

async function measured(file: string): Promise<number | undefined> {
  const scene = await readScene(file, {});
  return withStudio(async (studio) => {
    const { times } = await drawnScene(studio, scene, { size: FULL_SIZE, seconds: 0, timed: true }, QUIET);
    return times?.passes.reduce((sum, { milliseconds }) => sum + milliseconds, 0);
  });
}
