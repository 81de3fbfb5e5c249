/** How a try is drawn in a chart: by shape as well as by colour, a disc where all goals were met and a cross where not. */
import { symbol, symbolCircle, symbolTimes } from 'd3-shape';

/** @param r half its width; @returns the path */
export const markOf = (met: boolean, r: number): string =>
  (met ? symbol(symbolCircle, Math.PI * r * r) : symbol(symbolTimes, 5 * (r * 0.9) ** 2))() ?? '';
