import { openGpu } from '../testing/open-device';
import { WGSL_RULES } from '../../../core/src/testing/standard/wgsl-rules';

/** Wrong programs that the browser takes. */
const TAKEN = new Set<string>([]);

describe('WGSL, beside the browser', () => {
  let device: GPUDevice | undefined;

  beforeAll(async () => {
    device = await openGpu();
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
