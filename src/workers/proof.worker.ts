/** Tries the model and the wrong programs of an errand that comes in from a file, out of the page's way. */
import '../../core/run/exact-math.ts';
import * as Comlink from 'comlink';
import type { Errand } from '../../core/errand/errand.ts';
import { unsound } from '../../core/errand/proof.ts';
import { speakFrom, type Tongue } from '../../core/words.ts';

const api = {
  unsound(errand: Errand, tongue: Tongue): string[] {
    speakFrom(() => tongue);
    return unsound(errand);
  }
};
export type ProofApi = typeof api;
Comlink.expose(api);
