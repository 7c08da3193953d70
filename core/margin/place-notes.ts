/** A note that wants to stand at `y` (pixels from the top of the document) and is `height` pixels tall. */
export interface Wanted {
  readonly id: string;
  readonly y: number;
  readonly height: number;
}

interface Group {
  /** Where the group's first note would stand if only its own wishes counted. */
  wish: number;
  weight: number;
  height: number;
  members: Wanted[];
}

/** How strongly the note being read holds its place against its neighbours. */
const HELD = 1e6;

/**
 * Places notes in the order given, `gap` pixels apart at least, so that the sum of squared distances from where they
 * want to be is smallest: isotonic regression by pooling adjacent violators (Ayer et al., 1955), O(n). The note
 * `held` stays level with its passage and the others make room. Returns the top of each, by id.
 */
export function placeNotes(wanted: readonly Wanted[], gap: number, held?: string): ReadonlyMap<string, number> {
  const groups: Group[] = [];
  for (const note of wanted) {
    groups.push({ wish: note.y, weight: note.id === held ? HELD : 1, height: note.height + gap, members: [note] });
    while (groups.length > 1 && collides(groups.at(-2)!, groups.at(-1)!)) join(groups);
  }
  return settle(groups, gap);
}

const collides = (above: Group, below: Group): boolean => above.wish + above.height > below.wish;

function join(groups: Group[]): void {
  const below = groups.pop()!;
  const above = groups.at(-1)!;
  const wish = (above.wish * above.weight + (below.wish - above.height) * below.weight) / (above.weight + below.weight);
  above.wish = wish;
  above.weight += below.weight;
  above.height += below.height;
  above.members.push(...below.members);
}

/** Reads the tops out of the groups; nothing stands above the top of the document. */
function settle(groups: readonly Group[], gap: number): ReadonlyMap<string, number> {
  const tops = new Map<string, number>();
  let floor = 0;
  for (const group of groups) {
    let top = Math.max(group.wish, floor);
    for (const note of group.members) {
      tops.set(note.id, top);
      top += note.height + gap;
    }
    floor = top;
  }
  return tops;
}
