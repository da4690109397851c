const flags = [
  '--headless=new',
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--disable-gpu-compositing',
  // WGSL is judged by the browser, too.
  '--enable-unsafe-webgpu',
  '--use-webgpu-adapter=swiftshader',
  // Without them a canvas that WebGPU draws on ends the graphics process.
  '--enable-features=Vulkan',
  '--use-vulkan=swiftshader',
];

process.env.CHROME_BIN ??= '/usr/bin/chromium';

module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    browsers: ['SoftwareChromium'],
    customLaunchers: { SoftwareChromium: { base: 'Chrome', flags } },
    reporters: ['dots'],
    // As for all other specs: what takes long is named.
    reportSlowerThan: 5_000,
    colors: false,
    client: { jasmine: { random: true, timeoutInterval: 30_000 } },
    // A software device may hold the page up for seconds, on a busy machine for longer.
    browserNoActivityTimeout: 120_000,
    browserDisconnectTimeout: 30_000,
    pingTimeout: 60_000,
    singleRun: true,
    restartOnFileChange: false,
  });
