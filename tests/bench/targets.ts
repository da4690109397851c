import { fileURLToPath } from 'node:url';
import { compileMaterial, DEMO_DOCUMENTS, demoLibrary, emitMaterial, TARGETS } from '@brelvin/core';
import { runInPage } from '../support/device-page';
import type { BothFigures } from './both-devices';
import { wideMaterial } from './graphs';
import { ratio, spread } from './measure';
import type { Report } from './report';

/** Writing for both targets, and drawing on both devices. */
export async function benchTargets(report: Report): Promise<void> {
  const demos = DEMO_DOCUMENTS.flatMap(({ document }) => (document.format === 'brelvin-material' ? [document] : []));
  const linked = [...demos, wideMaterial(500)].flatMap((each) => compileMaterial(each, demoLibrary()).compiled ?? []);
  const emit = (target: keyof typeof TARGETS) => (): void => linked.forEach((each) => void emitMaterial(TARGETS[target], each));
  for (let warm = 0; warm < 3; warm++) for (const target of ['glsl', 'wgsl'] as const) emit(target)();
  report.bound('writing all demos, WGSL / GLSL', await ratio(15, emit('wgsl'), emit('glsl')), 1.3);
  const { webgl2, webgpu } = await runInPage<BothFigures>(fileURLToPath(new URL('./both-devices.ts', import.meta.url)), 'webgpu');
  const medianOf = (times: readonly number[]): number => spread(times).median;
  const ratios = webgpu.map(({ milliseconds }, index) => medianOf(milliseconds) / medianOf(webgl2[index]?.milliseconds ?? []));
  report.figure('frames 512 × 512 of all demos in their sets, WebGPU / WebGL2', spread(ratios));
}
