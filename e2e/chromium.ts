/** Debian's Chromium, as every test and measurement starts it. */
const OFF = [
  // pages of the address bar, which nobody sees here: each context would load two of them, a second of the processor's
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  // of a switch that is given twice the last counts: these are what Playwright switches off by itself
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsUpgrades',
  'HttpsFirstBalancedModeAutoEnable',
  'LensOverlay',
  'MediaRouter',
  'PaintHolding',
  'ThirdPartyStoragePartitioning',
  'AvoidCorsURLLoaderRestartOnRedirect',
  'OptimizationHints',
  'NetworkTimeServiceQuerying',
  'AimEnabled',
  'PreconnectToSearch'
];
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    `--disable-features=${OFF.join()}`
  ]
};
