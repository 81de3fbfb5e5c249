/**
 * A device as the workbench has it: a stand-in on its cable, in reach of the radio or out of it, what it is doing, and sending
 * to it. It lives in its own worker and keeps what it has in this browser, as a board keeps its flash.
 */
import { get, set } from 'idb-keyval';
import type { Status } from './says.ts';
import type { Stillness } from './stuck.ts';
import type { SerialLink } from './serial.ts';
import type { Cable, CableName } from '../../../../board/standin/cable.ts';
import type { Drive, Memory } from '../../../../board/standin/drive.ts';
import type { Condition } from '../../../../board/standin/memory.ts';
import { rasterFor } from '../../../../core/kit/kit.ts';
import type { Comes } from '../../../../core/kit/units.ts';
import type { LinkPort, Trouble } from '../../../../core/link/port.ts';
import type { Found, Held, Progress } from '../../../../core/link/send.ts';
import type { Input } from '../../../../core/trace/trace.ts';
import type { Pose } from '../../../../core/yard/mat.ts';
import type { FromBoard, Order, ToBoard } from '../../../workers/board.worker.ts';
import { Ring } from '../../../workers/ring.ts';
import type { Project } from '../../../../core/project.ts';
import type { Session } from '../../project/session.svelte.ts';
import type { Predicting } from '../predict/predict.svelte.ts';
import { Run, type Runs } from '../runs.svelte.ts';
import { clockIn, say } from '../../../../core/words.ts';

type Talk = typeof import('./talk.ts');
let talking: Promise<Talk> | undefined;
/** What talks to devices; after one try that failed, for want of a network, there may be another. */
export const talk = (): Promise<Talk> =>
  (talking ??= import('./talk.ts').catch((error: unknown) => {
    talking = undefined;
    throw error;
  }));

/** A stand-in; or, with no serial number, a board on a serial port of this computer. */
export type Device = { name: string; serial: string; comes: Comes; device: string };
/** A line that was typed to the device, and what it said. */
export type Typed = { at: number; line: string; answer: string; bad: boolean };
const TYPED_KEPT = 100;
/** one that nobody touches sleeps, to save its battery; it wakes when Dot is pressed */
const SLEEPS_AFTER_MS = 5 * 60_000;
/** what comes into its battery on a cable, and how often */
const CHARGES = 0.03;
const CHARGES_MS = 3000;

const memory = (serial: string): string => `mossbell.device.${serial}`;
type Kept = Memory & { maps: [number, (string | null)[]][]; typed?: Typed[]; runs?: Uint8Array[] };

/**
 * The radio of the stand-ins that run in the windows of this browser: what one sends to devices nearby the others hear. How
 * far windows are apart is nobody's measure, so each hears all.
 */
type OnAir = { message: string; from: string };
const AIR = 'mossbell.radio';

export class DeviceLink {
  plugged = $state(false);
  powered = $state(false);
  running = $state(false);
  /** its loader runs, and it appears as a drive */
  drive = $state.raw<Drive>();
  /** what the drive shows */
  files = $state.raw<Drive['files']>([]);
  /** what it told of itself when it was plugged in; and what is in the way of that */
  found = $state.raw<Found>();
  trouble = $state<Trouble>();
  asking = $state(false);
  charge = $state<number>();
  progress = $state.raw<Progress>();
  /** asked of the person while sending */
  question = $state.raw<{ found: Found; answer: (yes: boolean) => void }>();
  /** another version of the program lies there: whether it goes */
  replaces = $state.raw<{ old: Held; answer: (yes: boolean) => void }>();
  /** names of programs of which the old version goes without asking again */
  readonly replaced = new Set<string>();
  message = $state('');
  /** what went wrong last, or what was confirmed */
  mood = $state<'' | 'good' | 'bad'>('');
  /** what hangs on it, and what is wrong with it, for a lesson */
  cableName = $state<CableName>('good');
  condition = $state<Condition>('ready');
  /** its battery gives out while something is sent */
  givesOut = $state(false);
  /** its radio reaches the computer */
  near = $state(true);
  /** where it stands in the yard; undefined until it was put there */
  pose = $state.raw<Pose>();
  /** runs made out of reach, the oldest first: fetched when it is in reach again */
  waiting = $state.raw<readonly (Run | Uint8Array)[]>([]);
  /** the number of the program that its display offers; 0 while nothing is chosen */
  offers = $state(0);
  /** as its display shows it */
  offered = $state('');
  /** it shows which one it is, now */
  blinks = $state(false);
  typed = $state.raw<readonly Typed[]>([]);
  /** how its last run left it, or what is the matter while it runs */
  plight = $state<'' | 'fallen over' | 'stuck' | 'sleeping'>('');
  library = $state('');
  private worker: Worker | undefined;
  private ring: Ring | undefined;
  private cable: Cable | undefined;
  serial: SerialLink | undefined;
  /** speed of a serial port */
  baud = $state(115_200);
  /** a program was started over the port, and what it says is written down */
  listens = false;
  private t!: Talk;
  private plugging: Promise<void> | undefined;
  kept: Kept = { firmware: 'micropython', flash: {}, maps: [] };
  private booted: (() => void) | undefined;
  cancelled = false;
  private air: BroadcastChannel | undefined;
  /** the run that goes on */
  private recording: Run | undefined;
  private letGo: (() => void) | undefined;
  private sleep: ReturnType<typeof setTimeout> | undefined;
  private charger: ReturnType<typeof setInterval> | undefined;
  private still: Stillness | undefined;

  constructor(
    readonly workbench: {
      readonly session: Session;
      readonly runs: Runs;
      readonly muted: boolean;
      readonly predict: Predicting;
    },
    readonly unit: Device
  ) {}
  /** From its first start on it is on the air; it hears what others send while its program runs. */
  private listen(): void {
    this.air ??= new BroadcastChannel(AIR);
    this.air.onmessage = ({ data }: MessageEvent<OnAir>) => {
      if (this.running) this.order({ type: 'input', input: { message: data.message, from: data.from } });
    };
  }
  /** A board that is not simulated: it has its own buttons, and stands on somebody's table. */
  get real(): boolean {
    return !this.unit.serial;
  }
  /** Whether it is of the kind that the project is for. */
  get fits(): boolean {
    const device = this.real ? this.found?.device : this.unit.device;
    return !device || device === this.workbench.session.project.kit.device;
  }
  /** What it does is seen here: over its cable or by radio. */
  get inReach(): boolean {
    return this.plugged || this.near;
  }
  get status(): Status {
    if (!this.powered) return this.charge === 0 ? 'flat' : 'not plugged in';
    if (this.drive) return 'a drive';
    if (this.charge === 0 && !this.plugged) return 'flat';
    if (this.progress) return 'sending';
    if (this.running && this.plight) return this.plight;
    if (this.running) return this.plugged ? 'busy running' : 'on battery';
    if (!this.plugged) return this.plight || 'on battery';
    switch (this.trouble) {
      case 'silent':
        return 'charging only';
      case 'factory':
        return 'no MicroPython';
      case 'other firmware':
      case 'old MicroPython':
        return 'wrong firmware';
    }
    if (this.plight === 'fallen over') return this.plight;
    if (!this.fits) return 'another device';
    if (!this.found) return this.asking ? 'asking' : 'ready';
    if (!this.found.library) return 'library missing';
    return this.library && this.found.library !== this.library ? 'library old' : 'ready';
  }
  /** Without shared memory the board cannot be spoken to while its program runs. */
  get canInterrupt(): boolean {
    return typeof SharedArrayBuffer !== 'undefined' && crossOriginIsolated;
  }

  /** @param holdingDot it starts its loader and appears as a drive */
  plugIn(holdingDot = false): Promise<void> {
    // a second press while it starts is the same plug
    return (this.plugging ??= this.plug(holdingDot).finally(() => (this.plugging = undefined)));
  }
  private async plug(holdingDot: boolean): Promise<void> {
    this.tell('', '');
    this.t = await talk();
    if (!(await this.take())) return;
    if (holdingDot) this.powerOff();
    if (this.real && !(await this.openPort())) return;
    if (!this.real && !this.worker && !this.drive) await this.boot(holdingDot);
    this.plugged = true;
    this.touched();
    this.charging();
    if (this.drive) return;
    const missed = await this.t.fetchFrom(this);
    await this.look();
    if (missed && !this.mood) this.tell(missed, 'good');
  }
  /** What hangs in one window cannot be spoken to from another. */
  private async take(): Promise<boolean> {
    if (this.letGo || typeof navigator === 'undefined' || !navigator.locks) return true;
    const mine = await new Promise<boolean>((answer) => {
      void navigator.locks.request(memory(this.unit.serial), { ifAvailable: true }, async (lock) => {
        answer(!!lock);
        if (lock) await new Promise<void>((resolve) => (this.letGo = resolve));
      });
    });
    if (!mine) this.tell(this.t.heldSays(this.unit.name));
    return mine;
  }
  /** Asks it what it is and has. */
  async look(): Promise<void> {
    if (this.running || !this.plugged) return;
    this.library ||= (await this.t.boardLibrary()).version;
    this.asking = true;
    this.found = await this.speak(this.t.identify).finally(() => (this.asking = false));
  }
  /** The port that this browser was allowed before, or one that the person chooses now. */
  private async openPort(): Promise<boolean> {
    if (this.serial) return true;
    try {
      this.serial = await this.t.openSerial(this.baud, () => this.unplug());
    } catch (error) {
      // nobody chose one
      if ((error as Error).name !== 'NotFoundError') this.tell(this.t.portSays(error as Error));
      return false;
    }
    this.powered = true;
    this.asking = true;
    return true;
  }
  async reset(): Promise<void> {
    await this.serial?.reset();
  }
  private async boot(holdingDot: boolean): Promise<void> {
    const kept = (await get(memory(this.unit.serial)).catch(() => undefined)) as Partial<Kept> | undefined;
    const { text } = await this.t.boardLibrary();
    this.kept = { maps: [], ...this.t.newMemory(this.unit, text), ...kept };
    this.typed = this.kept.typed ?? [];
    this.waiting = this.kept.runs ?? [];
    this.trouble = undefined;
    this.found = undefined;
    this.asking = true;
    if (holdingDot || !this.kept.firmware) {
      this.drive = new this.t.Drive({ ...this.kept }, this.unit);
      this.files = this.drive.files;
      this.powered = true;
      return;
    }
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
      firmware: this.kept.firmware,
      rom: this.kept.firmware === 'factory' ? text : undefined,
      charge: this.kept.charge,
      maps: this.kept.maps
    });
    await ready;
    this.powered = true;
  }
  private post(message: ToBoard): void {
    this.worker?.postMessage(message);
  }
  order(order: Order): void {
    if (this.ring?.put(order)) this.post({ type: 'ring' });
    else this.post(order);
  }
  private hear(message: FromBoard): void {
    switch (message.type) {
      case 'ready':
        this.charge = message.charge;
        this.booted?.();
        break;
      case 'serial':
        if (this.plugged) this.cable?.receive(message.bytes);
        break;
      case 'flash':
        this.kept = { ...this.kept, flash: message.flash, charge: message.charge };
        void this.remember();
        break;
      case 'chooses':
        this.offers = message.number;
        this.offered = this.pictureOf(message.number);
        break;
      case 'shows':
        this.blink();
        break;
      case 'began': {
        this.running = true;
        this.plight = '';
        this.still = new this.t.Stillness(this.workbench.session.project.kit);
        const run = new Run(
          'device',
          `${this.unit.name}, ${new Date().toLocaleTimeString(clockIn(), { hour: '2-digit', minute: '2-digit' })}`,
          message.header,
          message.specs,
          this.workbench.session.project
        );
        const { runs, predict } = this.workbench;
        run.predictions = predict.take();
        this.recording = run;
        if (this.inReach) runs.device = run;
        else this.outOfReach(run);
        runs.shown = 'device';
        runs.scrubUs = undefined;
        break;
      }
      case 'frame': {
        for (const e of message.delta.events) {
          if (e.type === 'message' && e.nearby)
            this.air?.postMessage({ message: e.name, from: this.unit.name } satisfies OnAir);
          if (e.type === 'tipped') this.plight = 'fallen over';
        }
        this.recording?.add(message.delta);
        this.charge = message.charge;
        this.pose = message.pose;
        if (this.recording && this.still && (!this.plight || this.plight === 'stuck'))
          this.plight = this.still.look(this.recording.trace, this.pose) ? 'stuck' : '';
        break;
      }
      case 'ended':
        this.running = false;
        this.charge = message.charge;
        if (message.place) this.pose = message.place.pose;
        if (message.message) this.tell(message.message);
        // that it runs is no longer so
        else if (this.mood === 'good') this.tell('', '');
        this.kept = { ...this.kept, charge: message.charge };
        void this.over();
    }
  }
  /** A run is over: it is in the trace, or waits until the device is in reach. */
  private async over(): Promise<void> {
    const run = this.recording;
    this.recording = undefined;
    this.touched();
    if (run?.trace.ended === 'asleep') this.plight = 'sleeping';
    else if (this.plight === 'stuck') this.plight = '';
    if (run && this.workbench.runs.device === run) this.workbench.runs.onEnd?.(run);
    else if (run) await this.t.keepAway(this, run);
    await this.remember();
  }
  private outOfReach(run: Run): void {
    const { runs } = this.workbench;
    runs.away = run;
    if (runs.device === run) runs.device = undefined;
    this.waiting = [...this.waiting, run];
  }
  remember(): Promise<void> {
    return set(memory(this.unit.serial), $state.snapshot(this.kept)).catch(() => undefined);
  }
  /** Somebody did something with it: it is awake, for a while. */
  private touched(): void {
    clearTimeout(this.sleep);
    if (this.plight === 'sleeping') this.plight = '';
    this.sleep = setTimeout(() => {
      if (this.powered && !this.plugged && !this.running) this.plight = 'sleeping';
    }, SLEEPS_AFTER_MS);
  }
  private pictureOf(number: number): string {
    const raster = rasterFor(this.workbench.session.project.kit);
    return number && raster ? this.t.written(String(number), raster).picture : '';
  }
  private blink(): void {
    this.blinks = true;
    setTimeout(() => (this.blinks = false), 2400);
    this.sound();
  }
  /** Two rising tones; where there is no sound on this computer, the words stay. */
  sound(): void {
    if (!this.workbench.muted) void import('./tones.ts').then(({ rising }) => rising()).catch(() => undefined);
  }
  /** Near by, or out of reach of its radio. */
  async carry(near: boolean): Promise<void> {
    if (near === this.near) return;
    this.near = near;
    if (near) {
      const came = await this.t.fetchFrom(this);
      if (came) this.tell(came, 'good');
    } else if (!this.plugged && this.recording) this.outOfReach(this.recording);
  }

  /** Pulls the cable. In the middle of sending, the old program is still on the device. */
  unplug(): void {
    this.plugged = false;
    this.cable?.close();
    this.tell('', '');
    // it starts what is on it as soon as it has its power back
    if (this.drive || this.real) return this.powerOff();
    this.touched();
    if (this.recording && !this.inReach) this.outOfReach(this.recording);
    this.pose ??= this.workbench.session.project.start ?? this.workbench.session.project.mat.start;
  }
  /** Takes the battery out: what is in the file system stays. */
  powerOff(): void {
    this.cable?.close();
    this.worker?.terminate();
    this.worker = undefined;
    this.ring = undefined;
    this.drive = undefined;
    this.listens = false;
    void this.serial?.close();
    this.serial = undefined;
    this.powered = false;
    this.plugged = false;
    this.running = false;
    this.recording = undefined;
    this.progress = undefined;
    this.offers = 0;
    this.plight = '';
    clearTimeout(this.sleep);
    clearInterval(this.charger);
    if (this.workbench.runs.away && this.waiting.includes(this.workbench.runs.away))
      this.workbench.runs.away = undefined;
  }

  // ---- faults, for a lesson ----

  /** What is on it, as a teacher wants it for a lesson; it starts anew. */
  async setCondition(condition: Condition): Promise<void> {
    const { plugged } = this;
    this.t = await talk();
    if (!this.powered) await this.boot(true);
    this.powerOff();
    this.kept = { ...this.kept, ...this.t.inCondition(this.kept, condition, (await this.t.boardLibrary()).text) };
    this.condition = condition;
    await this.remember();
    this.tell('', '');
    if (plugged) await this.plugIn();
  }
  /** On its cable it charges, far quicker than a real one. */
  private charging(): void {
    clearInterval(this.charger);
    this.charger = setInterval(() => {
      if (!this.plugged || !this.powered) return clearInterval(this.charger);
      if (!this.running && !this.progress && this.charge !== undefined && this.charge < 1)
        this.setCharge(Math.min(1, this.charge + CHARGES));
    }, CHARGES_MS);
    if (this.charge === 0) this.setCharge(CHARGES);
  }
  setCharge(charge: number): void {
    this.charge = charge;
    this.kept = { ...this.kept, charge };
    this.order({ type: 'charge', charge });
    void this.remember();
  }

  // ---- its drive ----

  /** A file is dropped on the drive. It takes its time; pulling the cable ends it. */
  async drop(name: string, size: number, read: () => Promise<Uint8Array>): Promise<void> {
    const { drive } = this;
    if (!drive || this.progress) return;
    this.message = '';
    this.progress = this.t.takingSays(name, 0);
    await this.t.dropOn(this, drive, name, size, read);
  }
  /** Puts firmware on it: as a drive it takes the file. */
  async install(what: 'micropython' | 'factory'): Promise<void> {
    if (!this.drive) await this.plugIn(true);
    if (this.drive) await this.t.installOn(this, what);
  }

  /** @param sends what is wrong with it while something is sent is wrong now */
  connect(sends = false): LinkPort {
    this.listens = false;
    if (this.serial) return this.serial;
    return (this.cable = new this.t.Cable((bytes) => this.order({ type: 'serial', bytes: [...bytes] }), {
      cable: this.cableName === 'dies' && !sends ? 'good' : this.cableName,
      seed: ++this.cables,
      ...(this.givesOut && sends ? { diesAt: this.t.DIES_AT } : {}),
      died: () => {
        if (this.givesOut) {
          this.powerOff();
          this.setCharge(0);
        } else this.unplug();
      }
    }));
  }
  private cables = 0;
  /** What went wrong, or what came of it, in a sentence. */
  tell(message: string, mood: '' | 'good' | 'bad' = 'bad'): void {
    this.mood = mood;
    this.message = message;
  }
  turn: Promise<unknown> = Promise.resolve();
  /**
   * Talks to it over its cable, one thing after the other.
   * @returns undefined where that came to nothing; its message says why, unless it was only unplugged
   */
  speak<T>(does: (cable: LinkPort) => Promise<T>): Promise<T | undefined> {
    const turn = async (): Promise<T | undefined> => {
      if (!this.plugged || this.running || this.progress) return undefined;
      try {
        const answer = await does(this.connect());
        this.trouble = undefined;
        await this.remember();
        return answer;
      } catch (error) {
        this.trouble = error instanceof this.t.LinkProblem ? error.what : undefined;
        if (!(error instanceof this.t.LinkClosed)) this.tell((error as Error).message);
        return undefined;
      }
    };
    const mine = this.turn.then(turn);
    this.turn = mine;
    return mine;
  }
  /** The text that is sent of a project, and the block of each of its lines. */
  async textOf(project: Project): Promise<{ text: string; blocks: (string | null)[] }> {
    if (project.text !== undefined) return { text: project.text, blocks: [] };
    return (await (this.t ?? (await talk())).loadPython()).printPython(project.program, project.kit);
  }
  /**
   * @param project what is sent, if not the whole project
   * @param options.start it starts at once, on the cable; `installs`: the library is put there without asking
   */
  async send(
    project: Project = this.workbench.session.project,
    { start = false, installs = false }: { start?: boolean; installs?: boolean } = {}
  ): Promise<void> {
    if (!this.plugged || this.progress || this.drive) return;
    // from here on it is on its way: a second press sends nothing
    this.progress = { stage: 'asking', share: 0, says: say('Asking the device what it has') };
    this.cancelled = false;
    this.tell('', '');
    await this.t.sendTo(this, project, { start, installs });
  }
  say(said: Omit<Typed, 'at'>): void {
    this.typed = [...this.typed, { at: Date.now(), ...said }].slice(-TYPED_KEPT);
  }
  /** A line of Python for a device that waits. */
  type(line: string): Promise<void> {
    return this.t.typeTo(this, line);
  }
  /** It shows which one it is. */
  async showWhich(): Promise<void> {
    await this.speak(this.t.showWhich);
  }
  cancel(): void {
    this.cancelled = true;
    this.question?.answer(false);
    this.replaces?.answer(false);
  }
  /** Where it stands: what its program will drive. */
  put(pose: Pose): void {
    this.pose = pose;
    // on its wheels again
    this.plight = '';
  }
  /**
   * Dot on its face: takes the program that is offered, starts the one that is there, or is a button of the one that runs.
   * @param says what is told beside it
   */
  pressDot(says = ''): void {
    if (!this.powered || this.drive || this.real) return;
    if (this.running) return this.press('Dot', true);
    if (this.plight === 'sleeping') return this.touched();
    this.touched();
    if (this.offers) return this.order({ type: 'choose', does: 'take' });
    const { project } = this.workbench.session;
    if (!this.fits) return this.tell(this.t.elsewhereSays(this.unit, project.kit.device));
    const pose = this.pose ?? project.start ?? project.mat.start;
    this.listen();
    this.message = project.others?.length
      ? say(
          'The other devices of this yard are there in a rehearsal only. Stand-ins hear one another when each runs in a window of its own.'
        )
      : says;
    this.mood = says ? 'good' : '';
    this.plight = '';
    // what is said over its cable just now is said first: it would stop the program
    void this.turn.then(() => {
      this.order({ type: 'place', place: JSON.parse(JSON.stringify({ kit: project.kit, mat: project.mat, pose })) });
      this.order({ type: 'start' });
    });
  }
  /** Bar on its face: while it waits, the next program is offered. */
  press(button: 'Dot' | 'Bar', down: boolean): void {
    if (this.running) return this.order({ type: 'press', button, down });
    if (button === 'Bar' && down && this.powered && !this.drive && !this.real && !this.progress) {
      this.touched();
      void this.turn.then(() => this.order({ type: 'choose', does: 'next' }));
    }
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
    this.powerOff();
    this.letGo?.();
    this.letGo = undefined;
  }
}
