/** The devices of this computer: the class set. One of them is chosen: it stands in the yard. */
import { STAND_INS } from '../../../../core/kit/units.ts';
import type { Project } from '../../../../core/project.ts';
import { DeviceLink, talk } from './device.svelte.ts';

type Bench = ConstructorParameters<typeof DeviceLink>[0];
export class Devices {
  readonly all: readonly DeviceLink[];
  chosen = $state.raw() as DeviceLink;
  constructor(private readonly workbench: Bench) {
    this.all = STAND_INS.map((unit) => new DeviceLink(workbench, unit));
    this.chosen = this.all.find((d) => d.fits) ?? this.all[0];
  }
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
    const next = this.all.find((d) => d.unit.name === name)!;
    if (next === this.chosen) return;
    this.chosen = next;
    runs.away = undefined;
  }
  /** To every one that is plugged in and of the right kind, each for itself: one that fails does not hold up the others. */
  async sendAll(project: Project = this.workbench.session.project): Promise<void> {
    await Promise.all(this.plugged.filter((d) => d.fits).map((d) => d.send(project, { installs: true })));
  }
  /** CRC-32 of the program's text as it would be sent now: which devices have this very version. */
  async versionOf(project: Project): Promise<number> {
    const { text } = await this.chosen.textOf(project);
    return (await talk()).CRC32.str(text) >>> 0;
  }
  close(): void {
    for (const d of this.all) d.close();
  }
}
