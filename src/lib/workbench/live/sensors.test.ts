import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../../../../core/kit/kit.ts';
import { definition } from '../../../../core/language/catalogue.ts';
import { channelSpecs } from '../../../../core/run/channels.ts';
import { hall } from '../../../../core/testing/build.ts';
import { sensorsOf } from './sensors.ts';

describe('live values', () => {
  it('show what the trace records, each with the block that reads it', () => {
    for (const kit of [barrow, trowel]) {
      const keys = new Set(channelSpecs(kit, hall).map((c) => c.key));
      for (const s of sensorsOf(kit)) {
        expect(keys.has(s.key), s.key).toBe(true);
        const def = definition(s.kind);
        expect(def.shape, s.kind).toBe('value');
        for (const [slot, value] of Object.entries(s.slots)) {
          const spec = def.slots[slot];
          expect(spec, `${s.kind} ${slot}`).toBeDefined();
          if (spec.type === 'choice') expect(spec.options).toContain(value);
        }
        expect(s.range[0]).toBeLessThan(s.range[1]);
      }
    }
  });
  it('leave out what is not plugged in', () => {
    const bare = { ...barrow, parts: barrow.parts.filter((p) => p.type === 'motor') };
    const keys = sensorsOf(bare).map((s) => s.key);
    expect(keys).not.toContain('distance');
    expect(keys).not.toContain('lineLeft');
    expect(keys).toContain('heading');
  });
});
