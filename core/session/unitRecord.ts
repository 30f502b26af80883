/** A unit's record: what it was made of, when and how long, and what to do otherwise next time; read from the log alone. */
import type { Unit } from '#core/muster';
import { handsOnMinutes, type Plan } from '#core/plan';
import { endedSteps, standing, type LogEntry } from '#core/log';

export interface RecordLayer {
  readonly name: string;
  /** first and last day on which it was put on, as instants */
  readonly from: string;
  readonly to: string;
  readonly pieces: number;
  /** minutes of hands */
  readonly minutes: number;
  /** as it was mixed, each once */
  readonly mixtures: readonly string[];
}

export interface UnitRecord {
  /** in the order in which they were begun */
  readonly layers: readonly RecordLayer[];
  readonly spentMinutes: number;
  /** of hands, as the plan has what is not done yet */
  readonly plannedMinutes: number;
  readonly people: readonly string[];
  readonly reworks: readonly { readonly at: string; readonly text: string }[];
  readonly pictures: readonly {
    readonly id: string;
    readonly at: string;
    readonly data: string;
    readonly about: string;
  }[];
  readonly nextTime: readonly { readonly at: string; readonly text: string }[];
  readonly looked: number;
  readonly tableAt: string | null;
}

/** @param plan null: there is none yet, and nothing is planned */
export function unitRecord(unit: Unit, plan: Plan | null, log: readonly LogEntry[]): UnitRecord {
  const isOwn = (step: string | undefined): boolean =>
    step !== undefined && unit.pieces.some((p) => step.startsWith(`${p.id}.`));
  const layers = new Map<string, RecordLayer>();
  const people = new Set<string>();
  const ended = endedSteps(log);
  const reworks: { at: string; text: string }[] = [];
  const pictures: { id: string; at: string; data: string; about: string }[] = [];
  const nextTime: { at: string; text: string }[] = [];
  let [spentMinutes, looked] = [0, 0];
  let tableAt: string | null = null;
  for (const e of standing(log)) {
    if (e.kind === 'looked') {
      if (e.unit !== unit.id) continue;
      if (e.item === 'table') tableAt = e.at;
      else looked++;
      continue;
    }
    if (!('step' in e) || !isOwn(e.step)) continue;
    for (const name of e.people ?? []) people.add(name);
    const layer = e.about?.layer ?? '';
    if (e.kind === 'done') {
      spentMinutes += e.minutes;
      const known = layers.get(layer);
      const mixture = e.mixture ?? e.about?.mixture ?? '';
      layers.set(layer, {
        name: layer,
        from: known?.from ?? e.at,
        to: e.at,
        pieces: (known?.pieces ?? 0) + 1,
        minutes: (known?.minutes ?? 0) + e.minutes,
        mixtures: [...new Set([...(known?.mixtures ?? []), ...(mixture === '' ? [] : [mixture])])],
      });
    } else if (e.kind === 'rework')
      reworks.push({ at: e.at, text: `${e.about?.piece ?? ''}: ${e.trouble}. ${e.cure}` });
    else if (e.kind === 'picture')
      pictures.push({ id: e.id, at: e.at, data: e.data, about: [e.about?.piece, layer].join(', ') });
    else if (e.kind === 'noted' && e.isForNextTime && e.note)
      nextTime.push({ at: e.at, text: `${layer}: ${e.note}` });
  }
  const open = [...(plan?.steps.values() ?? [])].filter((s) => s.unit.id === unit.id && !ended.has(s.id));
  return {
    layers: [...layers.values()],
    spentMinutes,
    plannedMinutes: plan ? open.reduce((sum, s) => sum + handsOnMinutes(plan, s), 0) : 0,
    people: [...people],
    reworks,
    pictures,
    nextTime,
    looked,
    tableAt,
  };
}
