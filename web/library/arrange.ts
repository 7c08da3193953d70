/** The order of a collection: the names of its sections, and the sources above the first and in each of them. */
export interface Arrangement {
  readonly sections: readonly string[];
  /** One more than there are sections: those above the first come first. */
  readonly groups: readonly (readonly string[])[];
  /** Which of the former sections each is, null for a new one: what one may not see in them moves along. Absent where they are as they were. */
  readonly was?: readonly (number | null)[];
}

/** Under what name a section is dragged. */
export const sectionKey = (index: number): string => `section ${index}`;
const sectionOf = (key: string): number => (key.startsWith('section ') ? Number(key.slice(8)) : -1);

export const arranged = (
  sections: readonly string[],
  items: readonly { readonly id: string; readonly section: number }[],
): Arrangement => ({
  sections,
  groups: [-1, ...sections.keys()].map((n) => items.filter((i) => i.section === n).map((i) => i.id)),
});

/** Everything that can be dragged, from top to bottom. */
export const flat = ({ groups }: Arrangement): string[] =>
  groups.flatMap((ids, n) => [...(n > 0 ? [sectionKey(n - 1)] : []), ...ids]);

/** With one thing dragged onto another's place. A section takes its sources along; the same arrangement when nothing moved. */
export function movedTo(before: Arrangement, what: string, onto: string): Arrangement {
  if (what === onto) return before;
  const section = sectionOf(what);
  if (section >= 0) return withSection(before, section, onto);
  const order = flat(before);
  const from = order.indexOf(what);
  const to = order.indexOf(onto);
  if (from < 0 || to < 0) return before;
  order.splice(from, 1);
  order.splice(to, 0, what);
  return { ...before, groups: cut(order, before.sections.length) };
}

/** Keys from top to bottom, parted again at the sections. */
function cut(order: readonly string[], sections: number): string[][] {
  const groups: string[][] = Array.from({ length: sections + 1 }, () => []);
  let at = 0;
  for (const key of order) {
    if (sectionOf(key) >= 0) at = sectionOf(key) + 1;
    else groups[at]!.push(key);
  }
  return groups;
}

function withSection({ sections, groups }: Arrangement, from: number, onto: string): Arrangement {
  const over = sectionOf(onto);
  const to = over >= 0 ? over : Math.max(0, groups.findIndex((ids) => ids.includes(onto)) - 1);
  const order = [...sections.keys()].filter((n) => n !== from);
  order.splice(to, 0, from);
  return {
    sections: order.map((n) => sections[n]!),
    groups: [groups[0]!, ...order.map((n) => groups[n + 1]!)],
    was: order,
  };
}

/** Without a section; its sources stand at the end of what is above it. */
export function withoutSection({ sections, groups }: Arrangement, at: number): Arrangement {
  const left = [...sections.keys()].filter((n) => n !== at);
  const above = [...groups[at]!, ...groups[at + 1]!];
  return {
    sections: left.map((n) => sections[n]!),
    groups: groups.flatMap((ids, n) => (n === at + 1 ? [] : [n === at ? above : ids])),
    was: left,
  };
}

export const withNewSection = ({ sections, groups }: Arrangement, name: string): Arrangement => ({
  sections: [...sections, name],
  groups: [...groups, []],
  was: [...sections.keys(), null],
});
