import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, logging, type WebDriver } from 'selenium-webdriver';
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome';

/** What browsers of the tests draw with: WebGL2 alone, as one without WebGPU does, or both. */
export type BrowserDevice = 'webgl2' | 'webgpu';
const DEVICE_FLAGS: Readonly<Record<BrowserDevice, readonly string[]>> = {
  webgl2: ['--disable-gpu-compositing'],
  // A canvas that WebGPU draws on is shown only where pages are put together on the same software device.
  webgpu: ['--enable-unsafe-webgpu', '--use-webgpu-adapter=swiftshader', '--enable-features=Vulkan', '--use-vulkan=swiftshader'],
};
const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--window-size=1280,900',
];

export const WIDTH = 1280;
export const HEIGHT = 800;
/**
 * Device pixels for each CSS pixel. Layout, pointer and keys are those of 1280 × 800; one pixel in sixteen is drawn, which
 * on a software device is most of the time. What is about single pixels asks for all of them.
 */
export const FEW_PIXELS = 0.25;
export const ALL_PIXELS = 1;

/** A script that waits for the page has its own bound, which is shorter. */
const LONGEST_SCRIPT_MS = 300_000;

/** A headless Chromium with a profile of its own and a picture of 1280 × 800. */
export class Browser {
  private constructor(
    readonly driver: WebDriver,
    private readonly profile: string,
    /** Device pixels for each CSS pixel. */
    readonly pixelRatio: number,
  ) {}

  static async open(pixelRatio = FEW_PIXELS, device: BrowserDevice = 'webgl2'): Promise<Browser> {
    const profile = mkdtempSync(join(tmpdir(), 'brelvin-browser-'));
    const options = new Options();
    options.addArguments(...FLAGS, ...DEVICE_FLAGS[device], `--user-data-dir=${profile}`);
    options.setChromeBinaryPath('/usr/bin/chromium');
    const preferences = new logging.Preferences();
    preferences.setLevel(logging.Type.BROWSER, logging.Level.ALL);
    options.setLoggingPrefs(preferences);
    const driver = await new Builder()
      .forBrowser('chrome')
      .setChromeOptions(options)
      .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
      .build();
    const browser = new Browser(driver, profile, pixelRatio);
    await driver.manage().setTimeouts({ script: LONGEST_SCRIPT_MS });
    await browser.resize(WIDTH, HEIGHT);
    return browser;
  }

  private get chrome(): Driver {
    return this.driver as Driver;
  }

  /** Runs a script in every page before its own; until the function that comes back is called. */
  async beforePages(source: string): Promise<() => Promise<void>> {
    const answer: unknown = await this.chrome.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source });
    const { identifier } = answer as { identifier: string };
    return () => this.chrome.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', { identifier });
  }

  /** Lets nothing come from addresses that fit one of the patterns, from now on. */
  async block(urls: readonly string[]): Promise<void> {
    await this.chrome.sendDevToolsCommand('Network.enable', {});
    await this.chrome.sendDevToolsCommand('Network.setBlockedURLs', { urls });
  }

  /** How long scripts, styles and layout have kept the page's main thread so far. */
  async mainThreadSeconds(): Promise<number> {
    await this.chrome.sendDevToolsCommand('Performance.enable', {});
    const answer: unknown = await this.chrome.sendAndGetDevToolsCommand('Performance.getMetrics', {});
    const { metrics } = answer as { metrics: readonly { name: string; value: number }[] };
    const wanted = new Set(['ScriptDuration', 'LayoutDuration', 'RecalcStyleDuration']);
    return metrics.reduce((sum, { name, value }) => sum + (wanted.has(name) ? value : 0), 0);
  }

  /** Where what the page saves goes. */
  async saveInto(folder: string): Promise<void> {
    await this.chrome.sendDevToolsCommand('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
  }

  async resize(width: number, height: number): Promise<void> {
    const deviceScaleFactor = this.pixelRatio;
    await this.chrome.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor, mobile: false });
  }

  async picture(path?: string): Promise<Buffer> {
    const png = Buffer.from(await this.driver.takeScreenshot(), 'base64');
    if (path) writeFileSync(path, png);
    return png;
  }

  /** Errors that the page wrote to its console since the last call. */
  async consoleErrors(): Promise<string[]> {
    const entries = await this.driver.manage().logs().get(logging.Type.BROWSER);
    return entries.filter((entry) => entry.level.value >= logging.Level.SEVERE.value).map((entry) => entry.message);
  }

  async close(): Promise<void> {
    await this.driver.quit();
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 5 });
  }
}
