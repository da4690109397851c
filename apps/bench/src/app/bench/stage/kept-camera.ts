import type { OrbitCamera } from '@brelvin/contract';

const KEY = 'brelvin-camera';

/** Remembers where the camera stands, for when the page is loaded again in this window. */
export function keepCamera(set: string, camera: OrbitCamera): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify({ set, camera }));
  } catch {
    // Without room for it the picture is framed again.
  }
}

/** Where the camera stood in a set, if the page was just loaded again. */
export function keptCamera(set: string): OrbitCamera | undefined {
  const [navigation] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  if (navigation?.type !== 'reload') return undefined;
  try {
    const kept = JSON.parse(sessionStorage.getItem(KEY) ?? '{}') as { set?: string; camera?: OrbitCamera };
    // Only once: another set, or the same later, is framed as always.
    sessionStorage.removeItem(KEY);
    return kept.set === set ? kept.camera : undefined;
  } catch {
    return undefined;
  }
}
