/** The block library measures text on a canvas at the end of the page: it is not there to be read. */
export const hideMeasuring = (): void =>
  document.querySelectorAll('.blocklyComputeCanvas').forEach((e) => e.setAttribute('aria-hidden', 'true'));
