export { WebGl2Device, NoWebGl2 } from './webgl2/webgl2-device';
export { WebGpuDevice, NoWebGpu } from './webgpu/webgpu-device';
export { computeRow, LONGEST_ROW } from './webgpu/compute-row';
export { openPageDevice, PAGE_DEVICES, type Loss, type PageDevice, type PageDeviceName } from './page/page-device';
