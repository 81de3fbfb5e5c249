/** What a person did in a run, out of its record. */
import type { Input, TimedInput, Trace } from './trace.ts';

/** What is done to the run itself, not to a device in it. */
export const isOfTheRun = (input: Input): boolean => 'set' in input || 'stop' in input;

export const recordedInputs = ({ events }: Pick<Trace, 'events'>): TimedInput[] =>
  events.flatMap((e) =>
    e.type === 'input' ? [{ tUs: e.tUs, input: e.input, ...(e.to === undefined ? {} : { to: e.to }) }] : []
  );
/** What was done to the device in a run, to be done again in another one: that it was stopped belongs to the first alone. */
export const trackOf = (trace: Pick<Trace, 'events'>): TimedInput[] =>
  recordedInputs(trace).filter((i) => !('stop' in i.input));
