/** socket-empty, socket-wrong-part: the program drives sockets other than those the parts are in. Both mends are offered. */
import { movePart, partAt, partName, socketsFor, type Part } from '../../../kit/kit.ts';
import { aPart, typeName } from '../../../kit/parts/parts.ts';
import { slotSpec } from '../../catalogue.ts';
import { setSlot } from '../../edit.ts';
import { liveSteps } from '../../program.ts';
import type { Mend, Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

export const socket: Rule = ({ program, kit }) => {
  const found: Remark[] = [];
  for (const step of liveSteps(program))
    for (const [name, slot] of Object.entries(step.slots)) {
      const spec = slotSpec(step, name);
      if (spec?.type !== 'part' || typeof slot !== 'string') continue;
      const there = partAt(kit, slot);
      if (there?.type === spec.part) continue;
      const candidates = kit.parts.filter((p) => p.type === spec.part);
      const mends: Mend[] = candidates.slice(0, 2).flatMap((p: Part): Mend[] => [
        {
          label: say('Change the block to {name} ({socket})', { name: p.name, socket: p.socket }),
          apply: (program, kit) => ({ program: setSlot(program, step.id, name, p.socket), kit })
        },
        ...(there || !socketsFor(kit, p.type).includes(slot)
          ? []
          : [
              {
                label: say('Move the {name} to {slot}', { name: p.name, slot }),
                apply: (...[program, kit]: Parameters<Mend['apply']>) => ({
                  program,
                  kit: movePart(kit, p.socket, slot)
                })
              }
            ])
      ]);
      found.push({
        rule: there ? 'socket-wrong-part' : 'socket-empty',
        severity: 'will not work',
        blocks: [step.id],
        says: there
          ? say('The program uses {aPart} in {slot}, but the {partName} sits there.', {
              aPart: aPart(spec.part),
              slot,
              partName: partName(kit, slot)
            })
          : say('The program uses {aPart} in {slot}, and nothing is plugged in there.', {
              aPart: aPart(spec.part),
              slot
            }),
        todo: candidates.length
          ? `${candidates.map((p) => say('Your {name} sits in {socket}.', { name: p.name, socket: p.socket })).join(' ')}`
          : say('The kit sheet has no {typeName}. Plug one in, or take the block out.', {
              typeName: typeName(spec.part)
            }),
        mends
      });
    }
  return found;
};
