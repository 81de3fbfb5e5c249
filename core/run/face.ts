/** What a device shows and says: lamps, matrix, sounder, speech, log, messages. Everything becomes an event of the trace. */
import { BURNS_A } from '../circuit/led.ts';
import { RunError, type PlayedNote, type Switch } from '../language/meaning.ts';
import { playedNotes, TEMPO } from '../language/notes.ts';
import { fitting, type Raster } from '../kit/display.ts';
import { passing, written } from '../language/letters.ts';
import { darkOf, fitted, letterOf, pixelAt, signOf, withPixel, type Colour } from '../language/pixels.ts';
import type { Picture, Value } from '../language/program.ts';
import { show, textOf } from '../language/values.ts';
import type { Recorder } from '../trace/recorder.ts';
import type { TraceEvent } from '../trace/trace.ts';
import type { Clock } from './moves.ts';

/** An event without its time and block, which the device adds. */
export type NewEvent = TraceEvent extends infer E ? (E extends TraceEvent ? Omit<E, 'tUs' | 'block'> : never) : never;

export class Face {
  /** the block on whose behalf commands are given */
  block: string | undefined;
  /** triggers that fired and that no runner has picked up yet */
  triggers: string[] = [];
  toneUntilUs = 0;
  picture = '';
  readonly lamps: Record<string, { on: boolean; colour: string }> = {
    left: { on: false, colour: 'amber' },
    right: { on: false, colour: 'amber' }
  };
  /** the current of a bare LED while it is on, A; and whether too much has burnt it */
  protected ledAmpere: number | undefined;
  burnt = false;
  private beats = TEMPO;
  private newest = '';
  /** to devices nearby, not yet on the air */
  readonly sent: string[] = [];

  constructor(
    protected readonly clock: Clock,
    protected readonly recorder: Recorder,
    /** what its display shows; none where it has none */
    private readonly display: Raster | undefined
  ) {
    this.picture = display ? darkOf(display) : '';
  }

  /** Only what changes something is an event: the same command again is not. */
  private readonly told = new Map<string, string>();
  /** @param what what is commanded, @param to a word for what it becomes */
  protected tells(what: string, to: string | number, event: NewEvent): void {
    if (this.told.get(what) === String(to)) return;
    this.told.set(what, String(to));
    this.event(event);
  }
  /** It is no longer as it was told: the next command is an event whatever it says. */
  protected untold(what: string): void {
    this.told.delete(what);
  }
  protected event(event: NewEvent): void {
    this.recorder.event({ tUs: this.clock.now, ...(this.block ? { block: this.block } : {}), ...event } as TraceEvent);
  }
  protected percent(what: string, value: number, low: number): number {
    const used = value < low ? low : value > 100 ? 100 : value;
    if (used !== value) this.event({ type: 'clipped', what, asked: value, used });
    return used;
  }

  private lampOf(name: string): { on: boolean; colour: string } {
    return (this.lamps[name] ??= { on: false, colour: 'amber' });
  }
  lamp(name: string, to: Switch): void {
    const lamp = this.lampOf(name);
    lamp.on = this.holds(to === 'flip' ? !lamp.on : to === 'on');
    this.lit(name);
  }
  private lit(name: string, level?: number): void {
    const { on, colour } = this.lampOf(name);
    const event = { type: 'lamp', lamp: name, on, colour, ...(level === undefined ? {} : { level }) } as const;
    this.tells(`lamp ${name}`, on ? `${colour} ${level ?? ''}` : '', event);
  }
  lampLevel(name: string, level: number): void {
    const used = this.percent('level', level, 0);
    this.lampOf(name).on = this.holds(used > 0);
    this.lit(name, used);
  }
  lampColour(name: string, colour: string): void {
    const on = this.holds(true);
    this.lamps[name] = { on, colour };
    this.lit(name);
  }

  /** An LED that gets too much burns the first time it is switched on, and stays dark. */
  private holds(on: boolean): boolean {
    if (!on || this.ledAmpere === undefined) return on;
    if (!this.burnt && this.ledAmpere > BURNS_A) {
      this.burnt = true;
      this.event({ type: 'burnt', mA: Math.round(this.ledAmpere * 1e4) / 10 });
    }
    return !this.burnt;
  }
  /** Its display; with the pixel on it, where one is asked for. */
  private raster(x = 0, y = 0): Raster {
    const d = this.display;
    if (!d) throw new RunError('no-display');
    if (x < 0 || x >= d.columns || y < 0 || y >= d.rows)
      throw new RunError(
        'out-of-range',
        `x ${show(x)}, y ${show(y)}; x goes from 0 to ${d.columns - 1}, y from 0 to ${d.rows - 1}`
      );
    return d;
  }
  pixel(x: number, y: number, to: Switch): void {
    this.raster(x, y);
    const lit = to === 'flip' ? pixelAt(this.picture, x, y) === '.' : to === 'on';
    this.putUp(withPixel(this.picture, x, y, lit ? '#' : '.'));
  }
  pixelLevel(x: number, y: number, level: number): void {
    const { levels } = this.raster(x, y);
    this.putUp(withPixel(this.picture, x, y, signOf(this.percent('level', level, 0), levels)));
  }
  pixelColour(x: number, y: number, colour: Colour): void {
    this.putUp(fitted(withPixel(this.picture, x, y, letterOf(colour)), this.raster(x, y)));
  }
  show(picture: Picture): void {
    this.putUp(fitted(picture.picture, this.raster()));
  }
  dark(): void {
    this.putUp(darkOf(this.raster()));
  }
  write(value: Value): void {
    const raster = this.raster();
    const text = textOf(value);
    this.putUp(written(text, raster).picture);
    const all = [...text];
    const fits = fitting(raster);
    if (all.length > fits)
      this.tells('cut', text, {
        type: 'cut',
        text: all.slice(0, 40).join(''),
        shown: all.slice(0, fits).join('').toUpperCase()
      });
    else this.untold('cut');
  }
  passing(value: Value): Picture[] {
    return passing(textOf(value), this.raster());
  }
  private putUp(picture: string): void {
    if (picture === this.picture) return;
    this.picture = picture;
    this.event({ type: 'display', picture });
  }

  private pitch(hertz: number): void {
    if (hertz < 20 || hertz > 10000) throw new RunError('out-of-range', `${show(hertz)} Hz; from 20 to 10000`);
  }
  tone(hertz: number, seconds: number): void {
    this.pitch(hertz);
    this.toneUntilUs = this.clock.now + Math.round(seconds * 1e6);
    this.untold('tone');
    this.event({ type: 'tone', hertz, seconds });
  }
  startTone(hertz: number): void {
    this.pitch(hertz);
    this.tells('tone', hertz, { type: 'tone', hertz });
  }
  silence(): void {
    this.toneUntilUs = 0;
    this.tells('tone', 0, { type: 'tone', hertz: 0 });
  }
  volume(percent: number): void {
    const used = this.percent('volume', percent, 0);
    this.tells('volume', used, { type: 'volume', percent: used });
  }
  tempo(beats: number): void {
    if (beats < 10 || beats > 600) throw new RunError('out-of-range', `${show(beats)} beats a minute; from 10 to 600`);
    this.beats = beats;
  }
  notes(text: string): PlayedNote[] {
    return playedNotes(text, this.beats);
  }
  say(value: Value): void {
    this.event({ type: 'speech', text: textOf(value) });
  }

  log(value: Value): void {
    this.event({ type: 'log', text: textOf(value) });
  }
  plot(name: string, value: number): void {
    this.event({ type: 'plot', name, value });
  }
  mark(value: Value): void {
    this.event({ type: 'mark', text: textOf(value) });
  }
  send(message: string, nearby: boolean): void {
    this.event({ type: 'message', name: message, nearby });
    if (nearby) this.sent.push(message);
    this.arrives(message);
  }
  /** A message for this device, from itself or from another. */
  protected arrives(message: string): void {
    this.newest = message;
    this.triggers.push(`message ${message}`);
  }
  lastMessage(): string {
    return this.newest;
  }
}
