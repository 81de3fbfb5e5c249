/** What the parts of the workbench share: the project, the runs, the device, and what the person has chosen. */
import { getContext, setContext } from 'svelte';
import { allSteps } from '../../../core/language/program.ts';
import type { Mat } from '../../../core/yard/mat.ts';
import { hasWheels } from '../../../core/kit/kit.ts';
import { remarkKey, stopsStart, type Mend, type Remark } from '../../../core/language/lookover/remark.ts';
import { loadPython } from '../python/python.ts';
import type { Finding } from '../../../core/trace/findings/findings.ts';
import { History } from './history.svelte.ts';
import { Predicting } from './predict/predict.svelte.ts';
import { TraceView } from './trace/view.svelte.ts';
import type { Input } from '../../../core/trace/trace.ts';
import type { Session } from '../project/session.svelte.ts';
import { GamepadReader } from './inputs/gamepad.svelte.ts';
import { PhoneReader } from './inputs/phone.svelte.ts';
import type { Project } from '../../../core/project.ts';
import type { Ring } from './errand/judging.ts';
import { Runs, type How, type Run } from './runs.svelte.ts';
import type { DeviceLink } from './send/device.svelte.ts';
import { Devices } from './send/devices.svelte.ts';
import { say } from '../../../core/words.ts';
import { notebookLines, notebookText } from '../../../core/notebook.ts';

/** Whether a program listens to the keys of the computer. */
const asksKeys = ({ program, text }: Project): boolean =>
  text === undefined
    ? [...allSteps(program)].some((s) => s.kind === 'begin.key' || s.kind === 'sense.key')
    : /\bkey/.test(text);

export class Workbench {
  readonly runs = new Runs();
  readonly devices: Devices;
  /** ids of the block that is chosen in the program, and the slot a reckoner may write to */
  selected = $state<string>();
  /** several blocks chosen at once, by a frame drawn round them */
  chosen = $state.raw<ReadonlySet<string>>(new Set());
  /** a number that is being typed or dragged: seen in the yard before it is the program's */
  draft = $state.raw<{ block: string; slot: string; value: number }>();
  /** a pixel that is pointed at in the painter */
  pixel = $state.raw<{ x: number; y: number }>();
  /** what is open beside the program: a help page, a comparison, names, find */
  panel = $state.raw<{ kind: 'help' | 'compare' | 'names' | 'find' | 'same'; id: string }>();
  /** said to screen readers */
  spoken = $state('');
  /** lit from elsewhere: a line of text under the pointer, a span in the trace */
  pointed = $state<string>();
  section = $state<string>('begin');
  /** how the program is shown; a text project knows text and notebook */
  mode = $state<'blocks' | 'both' | 'flow' | 'notebook' | 'beside'>('blocks');
  /** whose line in the notebook is to be written next: the first block of a stack, or a routine */
  line = $state<string>();
  /** on a small screen: which pane is seen, and whether the tray lies beside the blocks */
  tab = $state<'yard' | 'program' | 'trace'>('program');
  drawer = $state(false);
  keysOpen = $state(false);
  muted = $state(false);
  /** the yard as it is seen now, as a picture */
  grab: (() => Promise<ImageBitmap>) | undefined;
  /** the yard takes the focus, and with it the keys of the computer */
  takeKeys: (() => void) | undefined;
  /** from where the yard is seen, whether the ruler is out, whether the hand is open */
  view = $state<'above' | 'behind' | 'free'>('above');
  measuring = $state(false);
  /** what stands under the yard and the program */
  bottom = $state<'trace' | 'live'>('trace');
  /** the pixel of the program that is pointed at on the device's face */
  facePixel = $state.raw<{ x: number; y: number }>();
  handOpen = $state(false);
  /** the hand is on another device in the yard, by its name */
  handOn = $state<string>();
  /** what stands on the right: the blocks to take, or what goes on inside the run */
  side = $state<'tray' | 'inside'>('tray');
  /** blocks that are to be tried on their own */
  trying = $state.raw<ReadonlySet<string>>();
  remarks: Remark[] = $derived.by(() => {
    const { program, kit, mat, text, others } = this.session.project;
    const aside = new Set(this.session.project.setAside ?? []);
    const { rules } = this;
    if (!rules) return [];
    const all = text === undefined ? rules.lookOver({ program, kit, mat, others }) : rules.lookOverText(text, kit);
    return all.filter((r) => !aside.has(remarkKey(r)));
  });
  notice = $state('');
  /** The rules of the look-over come after the first sight of the workbench; no program starts before them. */
  private rules = $state.raw<{
    lookOver: typeof import('../../../core/language/lookover/lookover.ts').lookOver;
    lookOverText: typeof import('../../../core/language/lookover/text.ts').lookOverText;
  }>();
  private readonly hasRules = Promise.all([
    import('../../../core/language/lookover/lookover.ts'),
    import('../../../core/language/lookover/text.ts')
  ])
    .then(([{ lookOver }, { lookOverText }]) => void (this.rules = { lookOver, lookOverText }))
    .catch(() => undefined);

  readonly trace: TraceView;
  readonly predict: Predicting;
  readonly history: History;
  /** what the run that is seen has to tell, heaviest first */
  found = $state.raw<readonly Finding[]>([]);
  /** what the one change since the run before did: told beside the findings, and no fault */
  since = $state.raw<Finding>();
  /** a run is told as a story: which finding is the caption now */
  story = $state.raw<{ at: number } | undefined>();
  /** which pane fills the screen, for a room */
  stage = $state<'yard' | 'program' | 'trace'>();

  readonly gamepad: GamepadReader | undefined;
  readonly phone: PhoneReader | undefined;

  constructor(readonly session: Session) {
    this.trace = new TraceView(session.project.kit.device);
    this.predict = new Predicting(() =>
      hasWheels(session.project.kit) ? { ...(session.project.start ?? session.project.mat.start) } : undefined
    );
    this.history = new History(
      () => session.id,
      () => !!session.of.looks,
      this.runs
    );
    this.runs.onEnd = (run) => {
      this.going(false);
      void this.keep(run);
    };
    if (typeof sessionStorage !== 'undefined' && sessionStorage.getItem(this.mark)) {
      this.going(false);
      this.notice = say(
        'This page was loaded anew while a run went on. A run lives in its page: it ended there and was not kept. The program is as it was; rehearse it again.'
      );
    }
    this.devices = new Devices(this);
    if (typeof window !== 'undefined') {
      this.bringLayout();
      this.gamepad = new GamepadReader(this);
      this.phone = new PhoneReader(this);
    }
    this.handOpen = !hasWheels(session.project.kit);
    const task = session.project.errand;
    if (task && task.may !== 'all' && !session.of.looks)
      void import('../../../core/errand/may.ts').then(({ mayNot }) => {
        session.refuses = (next) => {
          const why = mayNot(task, session.project.program, next.program);
          if (why) this.notice = why;
          return why;
        };
      });
  }
  /** the device in the yard */
  get device(): DeviceLink {
    return this.devices.chosen;
  }
  get name(): string {
    return this.session.project.name;
  }
  /** The mat that the yard shows: a run that was opened again may have been on another. */
  get mat(): Mat {
    const { runs } = this;
    return (runs.shown === 'earlier' ? runs.earlier?.project?.mat : undefined) ?? this.session.project.mat;
  }
  /** what the goals of an errand draw on the mat, and how far each is */
  rings = $state.raw<readonly Ring[]>([]);
  /** how many gestures there were when it was last tried */
  private tried = 0;
  /** A run that is over is kept; in an errand it is a try, with what came of it. */
  private async keep(run: Run): Promise<void> {
    const { past, project } = this.session;
    const programs = [...past.map((p) => p.project), project].map((p) => p.text ?? p.program);
    const changed = past.flatMap(({ label }, i) => (i >= this.tried && programs[i] !== programs[i + 1] ? [label] : []));
    this.tried = past.length;
    const { errand } = project;
    if (!errand) return this.history.keep(run);
    // a run that cannot be judged is kept all the same
    const result = await import('./errand/judging.ts')
      .then(({ resultOf }) => resultOf(this.runs, errand, run, changed))
      .catch(() => undefined);
    await this.history.keep(run, result);
  }
  private get mark(): string {
    return `mossbell.running.${this.session.id}`;
  }
  /** Remembers in this tab whether a rehearsal goes on, for the page that comes after a reload. */
  private going(on: boolean): void {
    if (typeof sessionStorage === 'undefined') return;
    if (on) sessionStorage.setItem(this.mark, '1');
    else sessionStorage.removeItem(this.mark);
  }
  /** What a person does to the device that is seen: the stand-in while it runs, or the rehearsal. */
  give(input: Input): void {
    if (this.runs.shown === 'device') this.device.give(input);
    else this.runs.input(input);
  }
  /** A button of the device: Dot also starts what is on a stand-in. */
  press(button: 'Dot' | 'Bar', down: boolean): void {
    if (this.runs.shown === 'device' && button === 'Dot' && down && !this.device.running) this.device.pressDot();
    else if (this.runs.shown === 'device') this.device.press(button, down);
    else this.give(down ? { press: button } : { release: button });
  }
  /** Whether somebody is there to take it. */
  get takesInput(): boolean {
    return this.runs.shown === 'device' ? this.device.running : this.runs.busy;
  }
  /** Flow and notebook take no blocks, nor does what is only looked at. */
  get hasTray(): boolean {
    return this.side === 'inside' || (!this.session.of.looks && !['flow', 'notebook'].includes(this.mode));
  }
  tell(text: string): void {
    this.spoken = text;
  }
  /** How this project was looked at last, on this computer. */
  private get layout(): { mode: Workbench['mode']; view: Workbench['view']; bottom: Workbench['bottom'] } {
    return { mode: this.mode, view: this.view, bottom: this.bottom };
  }
  keepLayout(): void {
    localStorage.setItem(`mossbell.layout.${this.session.id}`, JSON.stringify(this.layout));
  }
  private bringLayout(): void {
    const known = {
      mode: ['blocks', 'both', 'flow', 'notebook', 'beside'],
      view: ['above', 'behind', 'free'],
      bottom: ['trace', 'live']
    } as const;
    try {
      const kept = JSON.parse(localStorage.getItem(`mossbell.layout.${this.session.id}`) ?? '{}') as object;
      for (const [key, value] of Object.entries(kept))
        if ((known as Record<string, readonly unknown[]>)[key]?.includes(value)) Object.assign(this, { [key]: value });
    } catch {
      // what cannot be read is forgotten
    }
  }
  /** The line of the notebook that belongs to a stack or a routine, to write on; a new one where there is none. */
  writeAbout(tie: string): void {
    const { project } = this.session;
    const lines = notebookLines(project.notebook);
    if (!lines.some((l) => l.tie === tie)) {
      const kept = lines.filter((l, i) => l.text || i < lines.length - 1);
      const notebook = notebookText([...kept, { text: '', indent: 0, done: false, tie }]);
      this.session.change(say('write in the notebook'), { ...project, notebook });
    }
    Object.assign(this, { mode: 'beside', line: tie });
  }
  get toCheck(): Remark[] {
    return this.remarks.filter((r) => r.severity !== 'consider');
  }
  /** A remark that is meant so: it is not made again in this project. */
  setAside(remark: Remark): void {
    const { project } = this.session;
    this.session.change(say('set a remark aside'), {
      ...project,
      setAside: [...(project.setAside ?? []), remarkKey(remark)]
    });
  }
  mend(mend: Mend): void {
    const { program, kit, text } = this.session.project;
    if (text !== undefined) {
      if (mend.text) this.session.change(mend.label, { ...this.session.project, text: mend.text(text) });
      return;
    }
    const next = mend.apply(program, kit);
    this.session.kit(mend.label, next.kit, next.program);
  }
  /** what is still being typed becomes part of the project first */
  beforeRun: (() => void) | undefined;
  /** @returns whether the program can start; if not, says why not */
  private async canStart(): Promise<boolean> {
    this.beforeRun?.();
    const { text } = this.session.project;
    const wrong = text === undefined ? undefined : (await loadPython()).syntaxProblem(text);
    if (wrong) {
      this.notice = say('The text cannot start. Line {x}, column {x2}: {message}', {
        x: wrong.line + 1,
        x2: wrong.column + 1,
        message: wrong.message
      });
      return false;
    }
    await this.hasRules;
    const blocking = text === undefined ? this.remarks.filter(stopsStart) : [];
    if (blocking.length) {
      this.notice = say('The program cannot start. {says} {todo}', { says: blocking[0].says, todo: blocking[0].todo });
      this.selected = blocking[0].blocks[0];
      return false;
    }
    this.notice = '';
    this.gamepad?.again();
    return true;
  }
  async rehearse(how: How = {}, project?: Project): Promise<void> {
    // each try has a guess of its own
    const guessed = this.predict.asks && this.predict.list.length > 0;
    if (this.session.project.errand?.predictFirst && how.untilUs === undefined && !guessed) {
      this.predict.start();
      this.notice = say('Say first what it will do: put your guess, then rehearse.');
      return;
    }
    if (!(await this.canStart())) return;
    this.going(true);
    await this.runs.begin(project ?? this.session.project, how);
    if (this.runs.current) this.runs.current.predictions = this.predict.take();
    if (asksKeys(this.session.project)) setTimeout(() => this.takeKeys?.(), 50);
    if (!this.runs.hasRoom)
      this.notice = say(
        'The robot has no room where it starts: it stands in something, or beyond the edge, and was pushed out. Move it, or what is in its way.'
      );
  }
  /** Goes on from the playhead: the same up to there, then live, with the program as it is now. */
  async resumeHere(): Promise<void> {
    if (await this.canStart()) await this.runs.resumeHere(this.session.project);
  }
  /** The run played with its findings as captions, slowed at each. */
  tellStory(): void {
    const SLOW = 0.25;
    const AROUND = 700_000;
    const told = [...this.found].slice(0, 8).sort((a, b) => a.fromUs - b.fromUs);
    this.runs.scrubUs = 0;
    this.trace.whole();
    this.story = { at: -1 };
    this.runs.play((tUs) => {
      const near = told.findIndex((f) => tUs >= f.fromUs - AROUND && tUs <= f.fromUs + AROUND);
      const at = near < 0 ? -1 : this.found.indexOf(told[near]);
      if (this.story && this.story.at !== at) this.story = { at };
      const plain = this.runs.speed === Infinity ? 4 : this.runs.speed;
      return near < 0 ? plain : SLOW * plain;
    });
  }
  /** On to a block: from where it stands still, or from the start. */
  async runTo(block: string): Promise<void> {
    if (this.runs.state !== 'paused') {
      await this.rehearse({ paused: true });
      // it stands before the first block
      for (let i = 0; i < 100 && (this.runs.state as string) !== 'paused'; i++)
        await new Promise((r) => setTimeout(r, 20));
    }
    if (this.runs.state === 'paused' && this.runs.here !== block) this.runs.go({ to: block });
  }
  close(): void {
    this.going(false);
    this.gamepad?.close();
    this.phone?.close();
    this.runs.close();
    this.devices.close();
  }
}
const KEY = Symbol('workbench');
export const setWorkbench = (w: () => Workbench): void => void setContext(KEY, w);
export const useWorkbench = (): Workbench => getContext<() => Workbench>(KEY)();
