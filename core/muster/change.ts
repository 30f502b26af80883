/** A change of the muster as data: what was done, in words, and the smallest edits it comes to. */
import type { Muster } from './document';

/** Where something stands: names of fields, and ids within lists whose items have ids (`units`, `u1`, `table`). */
export type Path = readonly string[];

export type Edit =
  | { readonly do: 'set'; readonly at: Path; readonly value: unknown }
  | { readonly do: 'unset'; readonly at: Path }
  /** what has lists begins empty, where nobody has begun it yet; the items are edits of their own */
  | { readonly do: 'begin'; readonly at: Path; readonly value: unknown }
  /** a list that is empty goes; one in which somebody has put something meanwhile stays */
  | { readonly do: 'end'; readonly at: Path }
  /** puts items with ids into the list, directly after that one; null: at its beginning */
  | { readonly do: 'add'; readonly at: Path; readonly item: Item; readonly after: string | null }
  | { readonly do: 'remove'; readonly at: Path; readonly id: string }
  /** moves an item of the list directly after another; null: to its beginning */
  | { readonly do: 'move'; readonly at: Path; readonly id: string; readonly after: string | null };

export interface Change {
  /** what was done, in words, for undo */
  readonly label: string;
  readonly edits: readonly Edit[];
}

interface Item {
  readonly id: string;
}
type Fields = Readonly<Record<string, unknown>>;

/** The edits that lead from one muster to the other; none where they are alike. */
export function differences(before: Muster, after: Muster): Edit[] {
  const edits: Edit[] = [];
  compare(before, after, [], edits);
  return edits;
}

/** What an edit touches, as text: two edits of the same field touch the same. What only makes room for others touches nothing: null. */
export function touches(edit: Edit): string | null {
  if (edit.do === 'begin' || edit.do === 'end') return null;
  const at = edit.do === 'add' ? [...edit.at, edit.item.id] : 'id' in edit ? [...edit.at, edit.id] : edit.at;
  return at.join('/');
}

/** Thrown where an edit finds no longer what it is meant for. */
export class GoneError extends Error {
  constructor(readonly at: Path) {
    super(`What was to be changed is not there any more (${at.join('/')}).`);
    this.name = 'GoneError';
  }
}

/**
 * The muster with the edits, whatever else has changed meanwhile. Not checked yet: that is the door's work.
 * @throws GoneError where what an edit is meant for is not there
 */
export function withEdits(muster: Muster, edits: readonly Edit[]): Muster {
  let value: unknown = muster;
  for (let k = 0; k < edits.length;) {
    const row = rowFrom(edits, k);
    value = row.length > 1 ? withRow(value, row) : edited(value, edits[k]!.at, edits[k]!, edits[k]!.at);
    k += row.length;
  }
  return value as Muster;
}

type Add = Extract<Edit, { do: 'add' }>;

/** The edit at `k` and those that put further items each directly after the last: a whole list brought in at once. */
function rowFrom(edits: readonly Edit[], k: number): readonly Edit[] {
  const first = edits[k]!;
  const at = touchesList(first);
  if (at === null) return [first];
  let n = k + 1;
  let last = first as Add;
  for (; n < edits.length; n++) {
    const next = edits[n]!;
    if (touchesList(next) !== at || (next as Add).after !== last.item.id) break;
    last = next as Add;
  }
  return edits.slice(k, n);
}

function touchesList(edit: Edit): string | null {
  return edit.do === 'add' ? edit.at.join('/') : null;
}

/** A row of items put in by one copy of their list; one by one where some of them are there already. */
function withRow(value: unknown, row: readonly Edit[]): unknown {
  const adds = row as readonly Add[];
  const [first] = adds;
  const list = first!.at.reduce<unknown>(
    (inner, key) =>
      isFields(inner) ? inner[key] : isList(inner) ? inner.find((x) => x.id === key) : undefined,
    value,
  );
  const fresh = new Set(adds.map((a) => a.item.id));
  if (!isList(list) || list.some((x) => fresh.has(x.id)) || fresh.size < adds.length)
    return adds.reduce((inner, edit) => edited(inner, edit.at, edit, edit.at), value);
  const after = first!.after === null ? 0 : list.findIndex((x) => x.id === first!.after) + 1;
  // What they were to follow has gone: they stand last.
  const place = first!.after !== null && after === 0 ? list.length : after;
  const whole = [...list.slice(0, place), ...adds.map((a) => a.item), ...list.slice(place)];
  return edited(value, first!.at, { do: 'set', at: first!.at, value: whole }, first!.at);
}

function compare(before: unknown, after: unknown, at: Path, edits: Edit[]): void {
  if (before === after) return;
  if (isList(before) && isList(after)) return compareLists(before, after, at, edits);
  if (isFields(before) && isFields(after)) {
    for (const key of Object.keys(before))
      if (before[key] !== undefined && after[key] === undefined) end(before[key], [...at, key], edits);
    for (const [key, value] of Object.entries(after)) {
      if (value === undefined) continue;
      if (before[key] === undefined) begin(value, [...at, key], edits);
      else compare(before[key], value, [...at, key], edits);
    }
    return;
  }
  if (JSON.stringify(before) !== JSON.stringify(after)) edits.push({ do: 'set', at, value: after });
}

/** Something that was not there: two tabs that begin a list in the same moment begin the same one. */
function begin(value: unknown, at: Path, edits: Edit[]): void {
  const bare = withoutItems(value);
  if (bare === value) return void edits.push({ do: 'set', at, value });
  edits.push({ do: 'begin', at, value: bare });
  compare(bare, value, at, edits);
}

/** Something that goes: of a list what is known of it. */
function end(value: unknown, at: Path, edits: Edit[]): void {
  if (!isList(value)) return void edits.push({ do: 'unset', at });
  for (const { id } of value) edits.push({ do: 'remove', at, id });
  edits.push({ do: 'end', at });
}

/** The value with its lists emptied, those of its fields too; the value itself where it has none with anything in it. */
function withoutItems(value: unknown): unknown {
  if (isList(value)) return value.length === 0 ? value : [];
  if (!isFields(value)) return value;
  const bare = Object.entries(value).map(([key, inner]) => [key, withoutItems(inner)] as const);
  return bare.every(([key, inner]) => inner === value[key]) ? value : Object.fromEntries(bare);
}

function compareLists(before: readonly Item[], after: readonly Item[], at: Path, edits: Edit[]): void {
  const was = new Map(before.map((x) => [x.id, x]));
  const left = new Set(after.map((x) => x.id));
  for (const x of before) if (!left.has(x.id)) edits.push({ do: 'remove', at, id: x.id });
  // The order as it becomes while the edits are made, so that only what really moves is moved.
  const order = before.filter((x) => left.has(x.id)).map((x) => x.id);
  after.forEach((x, k) => {
    const previous = after[k - 1]?.id ?? null;
    const known = was.get(x.id);
    if (known) {
      if (order[k] !== x.id) {
        edits.push({ do: 'move', at, id: x.id, after: previous });
        order.splice(order.indexOf(x.id), 1);
        order.splice(k, 0, x.id);
      }
      compare(known, x, [...at, x.id], edits);
    } else {
      edits.push({ do: 'add', at, item: x, after: previous });
      order.splice(k, 0, x.id);
    }
  });
}

function edited(value: unknown, rest: Path, edit: Edit, whole: Path): unknown {
  const [head, ...tail] = rest;
  if (head === undefined) return atPlace(value, edit, whole);
  if (isList(value)) {
    const k = value.findIndex((x) => x.id === head);
    if (k < 0) throw new GoneError(whole);
    return value.map((x, i) => (i === k ? edited(x, tail, edit, whole) : x));
  }
  if (!isFields(value)) throw new GoneError(whole);
  if ((edit.do === 'unset' || edit.do === 'end') && tail.length === 0) {
    const { [head]: gone, ...others } = value;
    const stays = gone === undefined || (edit.do === 'end' && isList(gone) && gone.length > 0);
    return stays ? value : others;
  }
  return { ...value, [head]: edited(value[head], tail, edit, whole) };
}

function atPlace(value: unknown, edit: Edit, whole: Path): unknown {
  if (edit.do === 'set') return edit.value;
  if (edit.do === 'begin') return value ?? edit.value;
  if (edit.do === 'unset' || edit.do === 'end') return undefined;
  if (!isList(value) && !(value === undefined && edit.do === 'add')) throw new GoneError(whole);
  const list = isList(value) ? value : [];
  const others = list.filter((x) => x.id !== (edit.do === 'add' ? edit.item.id : edit.id));
  if (edit.do === 'remove') return others;
  const item = edit.do === 'add' ? edit.item : list.find((x) => x.id === edit.id);
  if (!item) throw new GoneError([...whole, edit.do === 'move' ? edit.id : '']);
  const after = edit.after === null ? 0 : others.findIndex((x) => x.id === edit.after) + 1;
  // What it was to follow has gone: it stands last.
  const place = edit.after !== null && after === 0 ? others.length : after;
  return [...others.slice(0, place), item, ...others.slice(place)];
}

function isFields(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A list whose items have ids of their own, all different; an empty one counts. */
function isList(value: unknown): value is readonly Item[] {
  if (!Array.isArray(value)) return false;
  const ids = value.map((x: unknown) => (isFields(x) && typeof x['id'] === 'string' ? x['id'] : null));
  return ids.every((id) => id !== null) && new Set(ids).size === ids.length;
}
