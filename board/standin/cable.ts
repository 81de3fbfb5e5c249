/**
 * The cable between a computer and a stand-in, at the pace of a serial port, and with the faults that cables have. It is a
 * `LinkPort` to those who send; `out` carries bytes to the device, `receive` takes what comes from it.
 */
import { LinkClosed, type LinkPort } from '../../core/link/port.ts';
import { Arrived } from './arrived.ts';
import { stream, uniform } from '../../core/random.ts';
import { later } from '../../core/words.ts';

/** What can be wrong with one, and what that does to a lesson. */
export const CABLES = {
  good: later('a data cable'),
  charge: later('a charging cable: power and no data'),
  flaky: later('a flaky cable: loses a byte in a thousand'),
  slow: later('a slow cable: a tenth of the speed'),
  dies: later('a cable that dies while sending')
} as const;
export type CableName = keyof typeof CABLES;
export const isCable = (name: string): name is CableName => name in CABLES;
/** bits a second; a byte takes ten of them, with its start and stop bits (8N1, the common setting of serial ports) */
export const BAUD = 115_200;
const BITS = 10;
const LOST = 1 / 1000;
/** where the one that dies does, bytes in both directions: before a program is whole */
export const DIES_AT = 900;
export type CableOptions = {
  cable?: CableName;
  baud?: number;
  /** the device answers while it is written to: what does not lie here already does not come */
  atOnce?: boolean;
  /** it is pulled after so many bytes, in both directions */
  diesAt?: number;
  seed?: number;
  /** it died */
  died?: () => void;
};

export class Cable implements LinkPort {
  /** bytes that went over it, in both directions */
  bytes = 0;
  private readonly arrived = new Arrived();
  private readonly baud: number;
  private readonly diesAt: number;
  private readonly chance;
  /** until when each direction is busy, ms */
  private busy = { out: 0, in: 0 };
  constructor(
    private readonly out: (bytes: Uint8Array) => void,
    private readonly options: CableOptions = {}
  ) {
    const { cable = 'good', baud = BAUD, seed = 1 } = options;
    this.baud = cable === 'slow' ? baud / 10 : baud;
    this.diesAt = options.diesAt ?? (cable === 'dies' ? DIES_AT : Infinity);
    this.chance = stream(seed, 'cable');
  }
  /** What of these bytes comes through. */
  private through(bytes: Uint8Array): Uint8Array {
    const left = Math.max(0, this.diesAt - this.bytes);
    this.bytes += bytes.length;
    let some = bytes.length > left ? bytes.subarray(0, left) : bytes;
    if (this.options.cable === 'charge') some = some.subarray(0, 0);
    return this.options.cable === 'flaky' ? some.filter(() => uniform(this.chance) >= LOST) : some;
  }
  /** Time that so many bytes take from now on, ms. */
  private takes(way: 'out' | 'in', bytes: number): number {
    if (this.baud === Infinity) return 0;
    const now = performance.now();
    this.busy[way] = Math.max(now, this.busy[way]) + (bytes * BITS * 1000) / this.baud;
    return this.busy[way] - now;
  }
  private die(): void {
    if (this.arrived.closed) return;
    this.close();
    this.options.died?.();
  }
  async write(bytes: Uint8Array): Promise<void> {
    if (this.arrived.closed) throw new LinkClosed();
    const some = this.through(bytes);
    if (some.length) this.out(some);
    if (this.bytes > this.diesAt) {
      this.die();
      throw new LinkClosed();
    }
    await passed(this.takes('out', bytes.length));
    if (this.arrived.closed) throw new LinkClosed();
  }
  async read(timeoutMs: number): Promise<Uint8Array | undefined> {
    const bytes = await this.arrived.read(this.options.atOnce ? 0 : timeoutMs);
    if (bytes) await passed(this.takes('in', bytes.length));
    return bytes;
  }
  /** From the device. */
  receive(bytes: Uint8Array): void {
    if (this.arrived.closed) return;
    const some = this.through(bytes);
    if (some.length) this.arrived.put(some);
    if (this.bytes > this.diesAt) this.die();
  }
  close(): void {
    this.arrived.close(true);
  }
}
/** Timers are coarse: what is less than a few milliseconds is made up for with the next. */
const passed = async (ms: number): Promise<void> => {
  if (ms >= 4) await new Promise((resolve) => setTimeout(resolve, ms));
};
