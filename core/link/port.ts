/** A byte link to a device: the stand-in's, or a serial port. Everything above it is the same code. */
import { say } from '../words.ts';
export interface LinkPort {
  write(bytes: Uint8Array): Promise<void>;
  /** what has arrived, as soon as there is something; undefined when `timeoutMs` pass without; throws LinkClosed when gone */
  read(timeoutMs: number): Promise<Uint8Array | undefined>;
}
/** The cable was pulled, or the device went away. */
export class LinkClosed extends Error {
  constructor() {
    super(say('The device was unplugged.'));
  }
}
/** What is wrong, for those who can offer more than a sentence. */
export type Trouble = 'silent' | 'factory' | 'other firmware' | 'old MicroPython' | 'another device' | 'full';
/** Something on the device's side did not go as it should: a sentence for the person with what to do. */
export class LinkProblem extends Error {
  constructor(
    message: string,
    readonly what?: Trouble,
    /** what MicroPython raised, for who typed to it */
    readonly raised?: string
  ) {
    super(message);
  }
}
