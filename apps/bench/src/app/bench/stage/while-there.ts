import { DeviceLost } from '@brelvin/core';

/** What a device was asked for; nothing where it went meanwhile. */
export async function whileThere<T>(work: Promise<T>): Promise<T | undefined> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof DeviceLost) return undefined;
    throw error;
  }
}
