import type { Input } from '../../../../core/trace/trace.ts';

/** Who takes inputs from outside: the workbench, as gamepad and phone see it. */
export type Taker = {
  readonly takesInput: boolean;
  give(input: Input): void;
  press(button: 'Dot' | 'Bar', down: boolean): void;
  /** what is open: the project's name */
  readonly name?: string;
  /** said on the screen */
  notice: string;
};
