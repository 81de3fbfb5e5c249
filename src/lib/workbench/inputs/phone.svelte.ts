/** A phone or tablet as the hand of this workbench: paired by a code, heard over server-sent events. */
import { LEVEL } from '../../../../core/yard/hand.ts';
import { say } from '../../../../core/words.ts';
import { silent } from '../../ui/silent.ts';
import type { HandMessage } from '../../../routes/api/hand/[code]/+server.ts';
import type { Taker } from './taker.ts';

/** A phone that says nothing for so long is gone: until then its last lean is held, then it is level. */
const HELD_MS = 500;

export class PhoneReader {
  code = $state('');
  addresses = $state.raw<string[]>([]);
  /** somebody is there */
  here = $state(false);
  delayMs = $state<number>();
  problem = $state('');
  /** another phone asks to be the hand */
  asking = $state<string>();
  private key = '';
  private events: EventSource | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private leans = false;

  constructor(private readonly w: Taker) {}

  async pair(): Promise<void> {
    this.close();
    this.problem = '';
    try {
      const response = await fetch('/api/hand', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name: this.w.name })
      });
      const answer = (await response.json()) as {
        code: string;
        key: string;
        addresses: string[];
        message: string;
      };
      if (!response.ok) return void (this.problem = answer.message);
      this.code = answer.code;
      this.key = answer.key;
      this.addresses = answer.addresses;
      this.events = new EventSource(`/api/hand/${answer.code}?key=${answer.key}`);
      this.events.onmessage = ({ data }) => this.hear(JSON.parse(data) as HandMessage);
    } catch {
      this.problem = silent();
    }
  }
  private hear(m: HandMessage): void {
    const { w } = this;
    if (m.asks) return void (this.asking = m.asks);
    clearTimeout(this.timer);
    if (m.bye) return this.gone();
    this.here = true;
    if (m.delayMs !== undefined) this.delayMs = m.delayMs;
    this.timer = setTimeout(() => this.gone(), HELD_MS);
    if (!w.takesInput) return;
    if (m.lean) {
      this.leans = true;
      w.give({ lean: m.lean });
    }
    if (m.shake) w.give({ shake: m.shake });
    if (m.press) w.press(m.press, true);
    if (m.release) w.press(m.release, false);
    if (m.edge) w.give({ edge: m.edge, touched: m.touched ?? false });
  }
  /** Lets the phone that asks be the hand, or not. */
  async decide(yes: boolean): Promise<void> {
    const phone = this.asking;
    this.asking = undefined;
    await fetch(`/api/hand/${this.code}?key=${this.key}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ phone, yes })
    }).catch(() => undefined);
  }
  /** It dropped off: level, and said on the screen. */
  private gone(): void {
    if (!this.here) return;
    this.here = false;
    this.w.notice = say('The phone is gone. Its last lean was held for half a second; now the board lies level.');
    if (this.leans && this.w.takesInput) this.w.give({ lean: LEVEL });
    this.leans = false;
  }
  close(): void {
    clearTimeout(this.timer);
    this.events?.close();
    this.events = undefined;
    this.code = '';
    this.asking = undefined;
    this.here = false;
  }
}
