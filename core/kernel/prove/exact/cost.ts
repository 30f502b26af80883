/** What a plan with a node's decisions costs at least. */
import { change } from '../../model/model';
import type { Ground, Node } from './node';

/** @param node at its earliest times */
export function leastCost(ground: Ground, node: Node): number {
  const { dues, weights } = ground.model;
  const { end } = node;
  let total = 0;
  for (const d of dues)
    total +=
      weights.tardiness * d.weight * Math.max(0, end[d.ready]! - d.due) +
      weights.completion * d.weight * end[d.ready]!;
  if (weights.makespan > 0) total += weights.makespan * end.reduce((a, b) => Math.max(a, b), 0);
  let overrun = 0;
  for (const minutes of node.overrun.values()) overrun += minutes;
  return (
    total +
    weights.setup * leastSetups(ground, node) +
    weights.overrun * overrun +
    weights.runs * leastRuns(ground, node)
  );
}

/** The set-ups so far, and for all that is still to come the least that any order gives it. */
function leastSetups({ model, onTool }: Ground, node: Node): number {
  let setups = 0;
  model.tools.forEach((tool, r) => {
    if (tool === null) return;
    const rest = onTool[r]!.filter((i) => !node.isSequenced[i]);
    for (const i of node.sequences[r]!) setups += node.setup[i]!;
    for (const i of rest) {
      if (model.isFixed[i]) continue;
      let least = change(tool, 0, model.family[i]!);
      for (const other of onTool[r]!)
        if (other !== i) least = Math.min(least, change(tool, model.family[other]!, model.family[i]!));
      setups += least;
    }
  });
  return setups;
}

/** The runs so far, and one for every family that is still to come and that nothing so far goes on with. */
function leastRuns({ model, onRuns }: Ground, node: Node): number {
  let runs = node.runs;
  onRuns.forEach((list, r) => {
    const row = node.rows[r]!;
    const rest = list.filter((i) => !row.includes(i));
    const free = new Set(rest.filter((i) => model.isFixed[i]).map((i) => model.family[i]));
    const last = row[row.length - 1];
    if (last !== undefined) free.add(model.family[last]);
    runs += new Set(rest.map((i) => model.family[i]).filter((f) => !free.has(f))).size;
  });
  return runs;
}
