/** What takes up more room at a time than there is, and the decisions that end it. */
import type { Hold, Model } from '../../model/model';
import type { Minute, OperationIndex, ResourceIndex } from '../../model/units';
import { arc, without, type Node } from './node';

/** What takes up room: an operation with its setup, or a hold. */
interface Activity {
  readonly operation: OperationIndex;
  readonly hold: Hold | null;
  readonly amount: number;
  readonly from: Minute;
  readonly to: Minute;
}

/** The ways out of the first clash of a node; null when all fits. */
export function waysOutOfClash(model: Model, node: Node): Node[] | null {
  const clash = firstClash(model, node);
  if (clash === null) return null;
  return clash.flatMap((x) => [
    ...clash.flatMap((y) => (x === y ? [] : [before(node, x, y)])),
    ...(x.hold === null ? [] : [without(node, x.hold)]),
  ]);
}

/** A smallest set of activities that together are too many for a resource at some minute; null when all fits. */
function firstClash(model: Model, node: Node): Activity[] | null {
  let first = Infinity;
  let found: Activity[] | null = null;
  for (let r = 0; r < model.capacity.length; r++) {
    const activities = activitiesOn(model, node, r).sort((a, b) => a.from - b.from);
    for (const at of activities) {
      if (at.from >= first) break;
      const active = activities.filter((a) => a.from <= at.from && a.to > at.from);
      let sum = active.reduce((total, a) => total + a.amount, 0);
      if (sum <= model.capacity[r]!) continue;
      active.sort((a, b) => a.amount - b.amount);
      const needed: Activity[] = [];
      for (const a of active)
        if (sum - a.amount > model.capacity[r]!) sum -= a.amount;
        else needed.push(a);
      first = at.from;
      found = needed;
      break;
    }
  }
  return found;
}

function activitiesOn(model: Model, node: Node, r: ResourceIndex): Activity[] {
  const list: Activity[] = [];
  for (let i = 0; i < model.count; i++)
    for (const use of model.uses[i]!)
      if (use.resource === r)
        list.push({
          operation: i,
          hold: null,
          amount: use.amount,
          from: node.start[i]! - node.setup[i]!,
          to: node.end[i]!,
        });
  for (const hold of model.holds)
    if (hold.resource === r && hold.from !== hold.to && node.end[hold.from]! < node.start[hold.to]!)
      list.push({
        operation: -1,
        hold,
        amount: hold.amount,
        from: node.end[hold.from]!,
        to: node.start[hold.to]!,
      });
  return list.filter((a) => a.from < a.to);
}

/** The node in which `x` is over before `y` begins. */
function before(node: Node, x: Activity, y: Activity): Node {
  const over = x.hold === null ? { from: x.operation, fromEnd: true } : { from: x.hold.to, fromEnd: false };
  const begin =
    y.hold === null
      ? { to: y.operation, toEnd: false, gap: node.setup[y.operation]! }
      : { to: y.hold.from, toEnd: true, gap: 0 };
  return { ...node, arcs: arc(node.arcs, { ...over, ...begin }) };
}
