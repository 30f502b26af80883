/** Decisions on order: what comes next on a tool, and what comes next where runs count. */
import { change, type Model } from '../../model/model';
import type { OperationIndex, ResourceIndex } from '../../model/units';
import { openingBefore } from './earliest';
import { arc, type Arc, type Ground, type Node } from './node';

/** Every operation that may come next on the tool, loaded or after it stood long enough to be clean. */
export function nextOnTool({ model, onTool }: Ground, node: Node, r: ResourceIndex): Node[] {
  const tool = model.tools[r]!;
  const sequence = node.sequences[r]!;
  const last = sequence[sequence.length - 1];
  const rest = onTool[r]!.filter((i) => !node.isSequenced[i]);
  return rest.flatMap((i) => {
    const clean = change(tool, 0, model.family[i]!);
    const isSequenced = node.isSequenced.slice();
    isSequenced[i] = 1;
    const sequences = node.sequences.map((s, k) => (k === r ? [...s, i] : s));
    const child = (s: number, arcs: Arc | null): Node => {
      const setup = node.setup.slice();
      setup[i] = model.isFixed[i] ? 0 : s;
      let all = arcs;
      for (const u of rest)
        if (u !== i) all = arc(all, { to: u, from: i, gap: leastChange(model, tool, rest, u, i) });
      return { ...node, setup, isSequenced, sequences, arcs: all };
    };
    if (last === undefined) return [child(clean, node.arcs)];
    if (model.isFixed[i]) return [child(0, arc(node.arcs, { to: i, from: last, gap: 0 }))];
    const s = change(tool, model.family[last]!, model.family[i]!);
    const loaded = arc(arc(node.arcs, { to: i, from: last, gap: s }), {
      to: last,
      toEnd: true,
      from: i,
      fromEnd: false,
      gap: -s - tool.idle,
    });
    if (tool.idle === Infinity) return [child(s, arc(node.arcs, { to: i, from: last, gap: s }))];
    const stood = arc(node.arcs, { to: i, from: last, gap: Math.max(s + tool.idle + 1, clean) });
    return [child(s, loaded), child(clean, stood)];
  });
}

/** The least setup before `u` when it comes somewhere after `i`. */
function leastChange(
  model: Model,
  tool: NonNullable<Model['tools'][number]>,
  rest: readonly number[],
  u: OperationIndex,
  i: OperationIndex,
): number {
  if (model.isFixed[u]) return 0;
  let least = change(tool, model.family[i]!, model.family[u]!);
  if (tool.idle !== Infinity) least = Math.min(least, change(tool, 0, model.family[u]!));
  for (const other of rest)
    if (other !== u && other !== i)
      least = Math.min(least, change(tool, model.family[other]!, model.family[u]!));
  return least;
}

/** Every operation that may come next where runs count: it goes on with the run of the last, or begins one. */
export function nextInRuns({ model, onRuns }: Ground, node: Node, r: ResourceIndex): Node[] {
  const row = node.rows[r]!;
  const last = row[row.length - 1] ?? -1;
  // On a tool the order stands.
  const next =
    model.tools[r] === null ? onRuns[r]!.filter((i) => !row.includes(i)) : [node.sequences[r]![row.length]!];
  return next.flatMap((i) => {
    if (model.isFixed[i] && last >= 0 && model.isFixed[last] && isSooner(model, i, last)) return [];
    const rows = node.rows.map((s, k) => (k === r ? [...s, i] : s));
    const follows =
      last < 0 || (model.isFixed[last] && model.isFixed[i])
        ? node.arcs
        : arc(node.arcs, { to: i, from: last, gap: node.setup[i]! });
    if (model.isFixed[i]) return [{ ...node, rows, arcs: follows }];
    const anew = { ...node, rows, arcs: follows, runs: node.runs + 1 };
    if (last < 0 || model.family[last] !== model.family[i] || standsAlone(model, r, last)) return [anew];
    const goesOn = arc(follows, { to: last, from: i, fromEnd: false, gap: 0, session: r });
    return [{ ...node, rows, arcs: goesOn }, anew];
  });
}

function isSooner(model: Model, a: OperationIndex, b: OperationIndex): boolean {
  return (
    model.fixedStart[a]! < model.fixedStart[b]! ||
    (model.fixedStart[a] === model.fixedStart[b] && model.fixedEnd[a]! < model.fixedEnd[b]!)
  );
}

/** History that ran outside every open interval. */
function standsAlone(model: Model, r: ResourceIndex, i: OperationIndex): boolean {
  return model.isFixed[i] === 1 && openingBefore(model, r, model.fixedStart[i]!) > model.fixedStart[i]!;
}
