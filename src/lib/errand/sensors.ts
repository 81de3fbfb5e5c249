/** What goals can ask a sensor for: the blocks that read one on a kit, and the channels that are measured. */
import { abilities, type Kit } from '../../../core/kit/kit.ts';
import { catalogue } from '../../../core/language/catalogue.ts';
import { channelsOf } from '../../../core/run/channels.ts';

export const sensorsOf = (kit: Kit): string[] => {
  const able = abilities(kit);
  return [...catalogue.values()].flatMap((def) =>
    def.kind.startsWith('sense.') && def.shape === 'value' && (def.needs ?? []).every((n) => able.has(n))
      ? [def.kind]
      : []
  );
};
const MEASURED = /^(light|temperature|moisture|distance|heading|line|rim$|nose$|lean|accelTotal)/;
export const measuredOf = (kit: Kit): { key: string; title: string }[] =>
  channelsOf(kit, 0).filter(({ key }) => MEASURED.test(key));
