import { Computing, elaborate, ENTRY_POINTS, evaluateCall, Random, WGSL_TARGET } from '@brelvin/core';
import { libraryProgram } from '../../../core/src/catalogue/library';
import { codeFor } from '../../../core/src/emit/target';
import { linkProgram } from '../../../core/src/ir/program';
import { openGpu } from '../testing/open-device';

/** Programs of one shader, each for one pixel. */
const PACK = 10;
/** 10,000 take minutes; they are run by hand when the language or the target changes. */
const PROGRAMS = 300;
const ROW_BYTES = 256;

describe('Computing on the CPU and as WGSL', () => {
  let gpu: GPUDevice;

  beforeAll(async () => {
    gpu = await openGpu();
  });

  afterAll(() => gpu?.destroy());

  /** Runs programs, one for each pixel, on its own number. */
  async function driven(text: string): Promise<Uint32Array> {
    const code = codeFor(WGSL_TARGET, linkProgram(libraryProgram('full_screen.vert'), elaborate('random', text).module));
    gpu.pushErrorScope('validation');
    const module = (stage: 'vertex' | 'fragment'): GPUShaderModule => gpu.createShaderModule({ code: code[stage].text });
    const pipeline = gpu.createRenderPipeline({
      layout: 'auto',
      vertex: { module: module('vertex'), entryPoint: ENTRY_POINTS.vertex },
      fragment: { module: module('fragment'), entryPoint: ENTRY_POINTS.fragment, targets: [{ format: 'rgba32uint' }] },
    });
    const target = gpu.createTexture({
      size: [PACK, 1],
      format: 'rgba32uint',
      usage: GPUTextureUsage.RENDER_ATTACHMENT | GPUTextureUsage.COPY_SRC,
    });
    const buffer = gpu.createBuffer({ size: ROW_BYTES, usage: GPUBufferUsage.COPY_DST | GPUBufferUsage.MAP_READ });
    const encoder = gpu.createCommandEncoder();
    const pass = encoder.beginRenderPass({ colorAttachments: [{ view: target.createView(), loadOp: 'clear', storeOp: 'store' }] });
    pass.setPipeline(pipeline);
    pass.draw(3);
    pass.end();
    encoder.copyTextureToBuffer({ texture: target }, { buffer, bytesPerRow: ROW_BYTES }, [PACK, 1]);
    gpu.queue.submit([encoder.finish()]);
    const fault = await gpu.popErrorScope();
    if (fault) throw new Error(`${fault.message}\n${code.fragment.text}`);
    await buffer.mapAsync(GPUMapMode.READ);
    const pixels = new Uint32Array(buffer.getMappedRange().slice(0));
    buffer.destroy();
    target.destroy();
    return pixels;
  }

  it(`comes to the same, bit by bit, in ${PROGRAMS} programs`, async () => {
    let compared = 0;
    for (let first = 0; first < PROGRAMS; first += PACK) {
      const functions = Array.from({ length: PACK }, (_, index) => new Computing(new Random(first + index), `f${first + index}`).program());
      const own = functions.map((each) => each.text).join('');
      const calls = functions.map(({ name }, index) => `  if (at == ${index}) result = ${name}(${first + index}u);`).join('\n');
      const pixels = await driven(`out uvec4 result;\n${own}void main() {\n  int at = int(gl_FragCoord.x);\n${calls}\n}\n`);
      const { module } = elaborate('random', own);
      functions.forEach(({ name, text }, index) => {
        const declared = module.functions.get(`${name}(uint)`)!;
        const { result } = evaluateCall(declared, [[first + index]], { functions: module.functions });
        const theirs = [...pixels.slice(index * 4, index * 4 + 4)];
        compared++;
        if (theirs.join() !== (result as readonly number[]).join())
          fail(`seed ${first + index}: ${(result as readonly number[]).join()} on the CPU, ${theirs.join()} by the driver\n${text}`);
      });
    }
    expect(compared).toBe(PROGRAMS);
  }, 400_000);
});
