/** The devices of this computer: the class set. One of them is chosen: it stands in the yard. */
import { STAND_INS } from '../../../../core/kit/units.ts';
import { say } from '../../../../core/words.ts';
import { DeviceLink } from './device.svelte.ts';
import type { Serial } from './serial.ts';

type Bench = ConstructorParameters<typeof DeviceLink>[0];
export class Devices {
  readonly all: readonly DeviceLink[];
  chosen = $state.raw() as DeviceLink;
  constructor(private readonly workbench: Bench) {
    this.all = STAND_INS.map((unit) => new DeviceLink(workbench, unit));
    this.chosen = this.all.find((d) => d.fits) ?? this.all[0];
    const serial = typeof navigator === 'undefined' ? undefined : (navigator as { serial?: Serial }).serial;
    if (!serial) return;
    this.board = new DeviceLink(workbench, {
      name: say('a board on a serial port'),
      serial: '',
      comes: 'ready',
      device: ''
    });
    // one that was allowed before comes back by itself
    const back = async (): Promise<void> => {
      if (this.chosen.plugged || !(await serial.getPorts()).length) return;
      this.chosen = this.board!;
      await this.chosen.plugIn();
    };
    void back();
    serial.addEventListener('connect', back);
  }
  /** a board that is not simulated, where the browser can reach one */
  readonly board: DeviceLink | undefined;
  /** Those of the kind that the project is for, and the others. */
  get fitting(): readonly DeviceLink[] {
    return this.all.filter((d) => d.fits);
  }
  get others(): readonly DeviceLink[] {
    return this.all.filter((d) => !d.fits);
  }
  get plugged(): readonly DeviceLink[] {
    return this.all.filter((d) => d.plugged);
  }
  /** Takes another one into the yard; the one before stays as it was. */
  choose(name: string): void {
    const { runs } = this.workbench;
    const next = [...this.all, ...(this.board ? [this.board] : [])].find((d) => d.unit.name === name)!;
    if (next === this.chosen) return;
    this.chosen = next;
    runs.away = undefined;
  }
  close(): void {
    for (const d of this.all) d.close();
    this.board?.close();
  }
}
