/** Before and after a session: what is laid out, what is left. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layOut, leftBehind } from './index';
import { last, order, plan } from './testing';

const anyMinute = fc.integer({ min: 0, max: last + 600 });

describe('before and after a session', () => {
  it('every paint of it is laid out, and protection wherever it is sprayed', () => {
    for (const session of plan.sessions) {
      const lines = layOut(plan, session, new Set());
      const text = lines.map((l) => l.text).join('\n');
      for (const s of session.steps) {
        if (s.layer.mixture !== '') expect(text).toContain(s.layer.mixture);
        if (s.layer.method === 'airbrush' || s.layer.method === 'can') expect(text).toContain('Respirator');
      }
      expect(new Set(lines.map((l) => `${l.group} ${l.text}`)).size).toBe(lines.length);
      expect(layOut(plan, session, new Set(plan.steps.keys()))).toEqual([]);
    }
  });

  it('what is wet when everyone goes is named, and what is dry is not', () => {
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const done = new Set(order.filter((s) => s.end <= minute).map((s) => s.id));
        const next = plan.sessions.find((s) => s.start > minute)?.start ?? Infinity;
        const { untouchable, meanwhile } = leftBehind(plan, done, minute, next);
        const wet = order.filter((s) => done.has(s.id) && s.tide.wetUntil > minute);
        expect(untouchable.length > 0).toBe(wet.length > 0);
        const lost = order.filter(
          (s) =>
            done.has(s.id) &&
            s.gate?.closes != null &&
            s.gate.closes > minute &&
            s.gate.closes < next &&
            s.gate.steps.some((id) => !done.has(id)),
        );
        expect(meanwhile.filter((m) => m.isLost).length).toBe(lost.length);
      }),
      { numRuns: 60 },
    );
  });
});
