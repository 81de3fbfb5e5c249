/** Tries an errand that comes in from a file or is made: its model, its wrong programs, and what else may ring its bell. */
import '../../core/run/exact-math.ts';
import * as Comlink from 'comlink';
import type { Errand } from '../../core/errand/errand.ts';
import { proposals, type Proposal } from '../../core/errand/otherwise.ts';
import { holes, unsound, type Holes } from '../../core/errand/proof.ts';
import type { Program } from '../../core/language/program.ts';
import { speakFrom, type Tongue } from '../../core/words.ts';

const api = {
  unsound(errand: Errand, tongue: Tongue): string[] {
    speakFrom(() => tongue);
    return unsound(errand);
  },
  /** What rings its bell and should not. */
  holes(errand: Errand, tongue: Tongue): Holes {
    speakFrom(() => tongue);
    return holes(errand);
  },
  /** Situations in which some of those miss a goal, and the model does not. */
  proposals(errand: Errand, open: Program[], tongue: Tongue): Proposal[] {
    speakFrom(() => tongue);
    return proposals(errand, open);
  }
};
export type ProofApi = typeof api;
Comlink.expose(api);
