/** Guesses before a run: where it will stop and which way it will face, or words; of one person or of several. */
import type { Prediction } from '../../../../core/predict.ts';
import type { Pose } from '../../../../core/yard/mat.ts';

export class Predicting {
  open = $state(false);
  /** guesses are being made; afterwards what came of them is seen */
  asks = $state(true);
  /** the pale robot, while a guess is being made */
  place = $state.raw<Pose>();
  words = $state('');
  who = $state('');
  list = $state.raw<readonly Prediction[]>([]);
  constructor(private readonly from: () => Pose | undefined) {}

  start(): void {
    this.open = true;
    this.again();
  }
  /** The next guess, and not yet a run. */
  again(): void {
    this.asks = true;
    this.list = [];
    this.words = '';
    this.place = this.from();
  }
  put(): void {
    const words = this.words.trim();
    const guess: Prediction = {
      who: this.who.trim(),
      ...(this.place ? { place: { ...this.place } } : {}),
      ...(words ? { words } : {})
    };
    this.list = [...this.list, guess];
    this.words = '';
    this.who = '';
  }
  /** What goes with the run that begins now; a guess that was dragged and not yet put counts too. */
  take(): readonly Prediction[] {
    if (!this.open) return [];
    const taken = this.list;
    this.asks = false;
    this.place = undefined;
    return taken;
  }
  shut(): void {
    this.open = false;
    this.place = undefined;
    this.list = [];
  }
}
