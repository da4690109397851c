import { WGSL_RULES } from '../../core/src/testing/standard/wgsl-rules';

/** What of WebGPU (W3C) is needed to have WGSL judged. */
interface ShaderJudge {
  createShaderModule(source: { readonly code: string }): {
    getCompilationInfo(): Promise<{ readonly messages: readonly { readonly type: string; readonly message: string }[] }>;
  };
  pushErrorScope(kind: 'validation'): void;
  popErrorScope(): Promise<unknown>;
  destroy(): void;
}
interface WebGpu {
  requestAdapter(): Promise<{ requestDevice(): Promise<ShaderJudge> } | null>;
}

/** Wrong programs that the browser takes. */
const TAKEN = new Set<string>([]);

describe('WGSL, beside the browser', () => {
  let device: ShaderJudge | undefined;

  beforeAll(async () => {
    const { gpu } = navigator as Navigator & { readonly gpu?: WebGpu };
    const adapter = await gpu?.requestAdapter();
    if (!adapter) throw new Error('the tests need a browser with WebGPU');
    device = await adapter.requestDevice();
  });

  afterAll(() => device?.destroy());

  async function said(code: string): Promise<string> {
    if (!device) throw new Error('there is no device');
    device.pushErrorScope('validation');
    const { messages } = await device.createShaderModule({ code }).getCompilationInfo();
    await device.popErrorScope();
    return messages.flatMap(({ type, message }) => (type === 'error' ? [message] : [])).join(' ');
  }

  it('takes the right programs', async () => {
    for (const { section, rule, right } of WGSL_RULES)
      expect(await said(right))
        .withContext(`${section}: ${rule}`)
        .toBe('');
  });

  it('refuses the wrong ones', async () => {
    for (const { section, rule, wrong } of WGSL_RULES) {
      const name = `${section}: ${rule}`;
      if (wrong && !TAKEN.has(name))
        expect(await said(wrong.text))
          .withContext(name)
          .not.toBe('');
    }
  });
});
