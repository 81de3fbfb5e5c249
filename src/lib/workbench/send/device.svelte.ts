/**
 * The device at the top of the workbench: which stand-in, whether it is plugged in, what it is doing, and sending to it.
 * A stand-in lives in its own worker and keeps its file system in this browser, as a board keeps its flash.
 */
import CRC32 from 'crc-32';
import { get, set } from 'idb-keyval';
import { programFile } from '../../../../board/standin/program-file.ts';
import { loadPython } from '../../python/python.ts';
import { STAND_INS } from '../../../../core/kit/units.ts';
import { LinkClosed, LinkProblem, type LinkPort } from '../../../../core/link/port.ts';
import { send, type Found, type Progress } from '../../../../core/link/send.ts';
import type { Input } from '../../../../core/trace/trace.ts';
import type { Pose } from '../../../../core/yard/mat.ts';
import type { FromBoard, Order, ToBoard } from '../../../workers/board.worker.ts';
import { Ring } from '../../../workers/ring.ts';
import type { Project } from '../../../../core/project.ts';
import type { Session } from '../../project/session.svelte.ts';
import type { Predicting } from '../predict/predict.svelte.ts';
import { Run, type Runs } from '../runs.svelte.ts';
import { boardLibrary } from './library.ts';
import { clockIn, later, say } from '../../../../core/words.ts';

type Flash = Record<string, Uint8Array>;
export const STATUSES = [
  later('not plugged in'),
  later('library missing'),
  later('ready'),
  later('sending'),
  later('busy running'),
  later('on battery'),
  later('flat')
] as const;
export type Status = (typeof STATUSES)[number];

const encoder = new TextEncoder();
const memory = (serial: string): string => `mossbell.device.${serial}`;
type Kept = { flash: Flash; charge?: number; maps: [number, (string | null)[]][] };

/**
 * The radio of the stand-ins that run in the windows of this browser: what one sends to devices nearby the others hear. How
 * far windows are apart is nobody's measure, so each hears all.
 */
type OnAir = { message: string; from: string };
const AIR = 'mossbell.radio';

/** The cable, as the sending procedure sees it. */
class Cable implements LinkPort {
  private arrived: Uint8Array[] = [];
  private wake: (() => void) | undefined;
  private closed = false;
  constructor(private readonly out: (bytes: Uint8Array) => void) {}
  async write(bytes: Uint8Array): Promise<void> {
    if (this.closed) throw new LinkClosed();
    this.out(bytes);
  }
  async read(timeoutMs: number): Promise<Uint8Array | undefined> {
    if (!this.arrived.length && !this.closed) {
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, timeoutMs);
        this.wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
      this.wake = undefined;
    }
    if (this.closed) throw new LinkClosed();
    return this.arrived.shift();
  }
  receive(bytes: Uint8Array): void {
    this.arrived.push(bytes);
    this.wake?.();
  }
  close(): void {
    this.closed = true;
    this.wake?.();
  }
}

export class DeviceLink {
  unit = $state<(typeof STAND_INS)[number]>(STAND_INS[0]);
  plugged = $state(false);
  powered = $state(false);
  running = $state(false);
  hasLibrary = $state(false);
  charge = $state<number>();
  progress = $state.raw<Progress>();
  /** asked of the person while sending */
  question = $state.raw<{ found: Found; answer: (yes: boolean) => void }>();
  message = $state('');
  /** what went wrong last, or what was confirmed */
  mood = $state<'' | 'good' | 'bad'>('');
  /** a cable that only charges carries no word to the device */
  chargesOnly = $state(false);
  /** where it stands in the yard; undefined until it was put there */
  pose = $state.raw<Pose>();
  /** a run made on battery, waiting to be fetched when plugged in */
  unread = $state(false);
  private worker: Worker | undefined;
  private ring: Ring | undefined;
  private cable: Cable | undefined;
  private kept: Kept = { flash: {}, maps: [] };
  private booted: (() => void) | undefined;
  private cancelled = false;
  private air: BroadcastChannel | undefined;

  constructor(
    private readonly workbench: {
      readonly session: Session;
      readonly runs: Runs;
      readonly muted: boolean;
      readonly predict: Predicting;
    }
  ) {
    this.unit = this.units[0];
  }
  /** From its first start on it is on the air; it hears what others send while its program runs. */
  private listen(): void {
    this.air ??= new BroadcastChannel(AIR);
    this.air.onmessage = ({ data }: MessageEvent<OnAir>) => {
      if (this.running) this.order({ type: 'input', input: { message: data.message, from: data.from } });
    };
  }
  /** The stand-ins of the kind that the project is for. */
  get units() {
    return STAND_INS.filter((s) => s.device === this.workbench.session.project.kit.device);
  }

  get status(): Status {
    if (!this.powered) return 'not plugged in';
    if (this.charge === 0 && !this.plugged) return 'flat';
    if (this.progress) return 'sending';
    if (this.running) return this.plugged ? 'busy running' : 'on battery';
    if (!this.plugged) return 'on battery';
    return this.hasLibrary ? 'ready' : 'library missing';
  }
  /** Without shared memory the board cannot be spoken to while its program runs. */
  get canInterrupt(): boolean {
    return typeof SharedArrayBuffer !== 'undefined' && crossOriginIsolated;
  }

  async choose(name: string): Promise<void> {
    if (name === this.unit.name) return;
    this.shutDown();
    this.unit = STAND_INS.find((s) => s.name === name)!;
    await this.plugIn();
  }
  async plugIn(): Promise<void> {
    this.mood = '';
    this.message = '';
    if (!this.worker) await this.boot();
    this.plugged = true;
    const { runs } = this.workbench;
    if (runs.away) {
      runs.device = runs.away;
      if (runs.device.trace.ended) runs.onEnd?.(runs.device);
      runs.away = undefined;
      this.unread = false;
      this.message = say('What it did on its own is in the trace now, beside the rehearsal.');
      this.mood = 'good';
    }
  }
  private async boot(): Promise<void> {
    const kept = (await get(memory(this.unit.serial)).catch(() => undefined)) as Kept | undefined;
    this.kept = kept ?? {
      flash: this.unit.library ? { 'lib/mossbell.py': encoder.encode((await boardLibrary()).text) } : {},
      maps: []
    };
    this.worker = new Worker(new URL('../../../workers/board.worker.ts', import.meta.url), { type: 'module' });
    this.worker.onmessage = ({ data }: MessageEvent<FromBoard>) => this.hear(data);
    const buffer = this.canInterrupt ? Ring.make() : undefined;
    this.ring = buffer && new Ring(buffer);
    const ready = new Promise<void>((resolve) => (this.booted = resolve));
    this.post({
      type: 'boot',
      ring: buffer,
      serial: this.unit.serial,
      name: this.unit.name,
      flash: this.kept.flash,
      charge: this.kept.charge,
      maps: this.kept.maps
    });
    await ready;
    this.powered = true;
  }
  private post(message: ToBoard): void {
    this.worker?.postMessage(message);
  }
  private order(order: Order): void {
    if (this.ring?.put(order)) this.post({ type: 'ring' });
    else this.post(order);
  }
  private hear(message: FromBoard): void {
    switch (message.type) {
      case 'ready':
        this.hasLibrary = message.hasLibrary;
        this.charge = message.charge;
        this.booted?.();
        break;
      case 'serial':
        if (this.plugged) this.cable?.receive(message.bytes);
        break;
      case 'flash':
        this.hasLibrary = message.hasLibrary;
        this.kept = { ...this.kept, flash: message.flash, charge: message.charge };
        void this.remember();
        break;
      case 'began': {
        this.running = true;
        const run = new Run(
          'device',
          `${this.unit.name}, ${new Date().toLocaleTimeString(clockIn(), { hour: '2-digit', minute: '2-digit' })}`,
          message.header,
          message.specs,
          this.workbench.session.project
        );
        const { runs, predict } = this.workbench;
        run.predictions = predict.take();
        if (this.plugged) runs.device = run;
        else runs.away = run;
        runs.shown = 'device';
        runs.scrubUs = undefined;
        break;
      }
      case 'frame':
        for (const e of message.delta.events)
          if (e.type === 'message' && e.nearby)
            this.air?.postMessage({ message: e.name, from: this.unit.name } satisfies OnAir);
        (this.workbench.runs.away ?? this.workbench.runs.device)?.add(message.delta);
        this.charge = message.charge;
        this.pose = message.pose;
        break;
      case 'ended':
        this.running = false;
        if (!this.workbench.runs.away && this.workbench.runs.device)
          this.workbench.runs.onEnd?.(this.workbench.runs.device);
        this.charge = message.charge;
        if (message.place) this.pose = message.place.pose;
        if (message.message) {
          this.message = message.message;
          this.mood = 'bad';
        } else if (this.workbench.runs.away) this.unread = true;
        this.kept = { ...this.kept, charge: message.charge };
        void this.remember();
    }
  }
  private remember(): Promise<void> {
    return set(memory(this.unit.serial), $state.snapshot(this.kept)).catch(() => undefined);
  }

  /** Pulls the cable. In the middle of sending, the old program is still on the device. */
  unplug(): void {
    this.plugged = false;
    this.cable?.close();
    this.message = '';
    this.mood = '';
    this.pose ??= this.workbench.session.project.start ?? this.workbench.session.project.mat.start;
  }
  /** Takes the battery out and puts it back: what is in the file system stays. */
  private shutDown(): void {
    this.cable?.close();
    this.worker?.terminate();
    this.worker = undefined;
    this.ring = undefined;
    this.powered = false;
    this.plugged = false;
    this.running = false;
    this.progress = undefined;
    this.pose = undefined;
    this.workbench.runs.away = undefined;
    this.unread = false;
    this.message = '';
    this.mood = '';
  }

  private connect(): Cable {
    const out = (bytes: Uint8Array): unknown => this.chargesOnly || this.order({ type: 'serial', bytes: [...bytes] });
    return (this.cable = new Cable(out));
  }
  /** What went wrong, in a sentence. */
  tell(message: string): void {
    this.mood = 'bad';
    this.message = message;
  }
  private talk: Promise<unknown> = Promise.resolve();
  /**
   * Talks to it over its cable, one thing after the other.
   * @returns undefined where that came to nothing; its message says why, unless it was only unplugged
   */
  speak<T>(does: (cable: LinkPort) => Promise<T>): Promise<T | undefined> {
    const turn = async (): Promise<T | undefined> => {
      if (!this.plugged || this.running || this.progress) return undefined;
      try {
        const answer = await does(this.connect());
        await this.remember();
        return answer;
      } catch (error) {
        if (!(error instanceof LinkClosed)) this.tell((error as Error).message);
        return undefined;
      }
    };
    const mine = this.talk.then(turn);
    this.talk = mine;
    return mine;
  }
  /** @param project what is sent, if not the whole project */
  async send(project: Project = this.workbench.session.project): Promise<void> {
    if (!this.plugged || this.progress) return;
    // from here on it is on its way: a second press sends nothing
    this.progress = { stage: 'asking', share: 0, says: say('Asking the device what it has') };
    this.cancelled = false;
    this.mood = '';
    this.message = '';
    try {
      await this.talk;
      const { text, blocks } =
        project.text === undefined
          ? (await loadPython()).printPython(project.program, project.kit)
          : { text: project.text, blocks: [] };
      const file = encoder.encode(programFile(text));
      const crc = CRC32.str(text) >>> 0;
      // the cable was pulled while the text was made
      if (!this.plugged) throw new LinkClosed();
      if (this.running) this.order({ type: 'interrupt' });
      const cable = this.connect();
      const library = await boardLibrary();
      const { number } = await send(cable, {
        file,
        called: { name: project.name, at: Date.now() },
        library: { file: encoder.encode(library.text), version: library.version },
        mayInstall: (found) =>
          new Promise<boolean>(
            (answer) => (this.question = { found, answer: (yes) => ((this.question = undefined), answer(yes)) })
          ),
        progress: (p) => (this.progress = p),
        cancelled: () => this.cancelled
      });
      // a text project has no blocks to speak of: its lines stand for themselves
      if (project.text === undefined) {
        this.kept = { ...this.kept, maps: [...this.kept.maps.filter(([c]) => c !== crc).slice(-20), [crc, blocks]] };
        this.order({ type: 'map', crc, blocks });
      }
      await this.remember();
      this.message = say(
        '"{name}" is on {name2} as program {number}. Unplug it, stand it in the yard, and press Dot on its face.',
        { name: project.name, name2: this.unit.name, number }
      );
      this.mood = 'good';
      // no sound on this computer: the words stay
      if (!this.workbench.muted) void import('./tones.ts').then(({ rising }) => rising()).catch(() => undefined);
    } catch (error) {
      this.tell(
        error instanceof LinkClosed
          ? say('Unplugged while sending. The program that was on the device before is still there, whole.')
          : error instanceof LinkProblem
            ? error.message
            : say('Sending failed: {message}', { message: (error as Error).message })
      );
    } finally {
      this.progress = undefined;
      this.question = undefined;
    }
  }
  cancel(): void {
    this.cancelled = true;
    this.question?.answer(false);
  }
  /** Where it stands: what its program will drive. */
  put(pose: Pose): void {
    this.pose = pose;
  }
  /** Dot on its face: starts the program, or is a button of the program that runs. */
  pressDot(): void {
    if (!this.powered) return;
    if (this.running) return this.press('Dot', true);
    const { project } = this.workbench.session;
    const pose = this.pose ?? project.start ?? project.mat.start;
    this.listen();
    this.message = project.others?.length
      ? say(
          'The other devices of this yard are there in a rehearsal only. Stand-ins hear one another when each runs in a window of its own.'
        )
      : '';
    this.mood = '';
    this.order({ type: 'place', place: JSON.parse(JSON.stringify({ kit: project.kit, mat: project.mat, pose })) });
    this.order({ type: 'start' });
  }
  press(button: 'Dot' | 'Bar', down: boolean): void {
    if (this.running) this.order({ type: 'press', button, down });
  }
  /** Buttons go to the board, which has its own ideas of them; everything else to the yard. */
  give(input: Input): void {
    if ('press' in input) this.press(input.press, true);
    else if ('release' in input) this.press(input.release, false);
    else if (this.running) this.order({ type: 'input', input });
  }
  halt(): void {
    this.order({ type: 'interrupt' });
  }
  close(): void {
    this.air?.close();
    this.shutDown();
  }
}
