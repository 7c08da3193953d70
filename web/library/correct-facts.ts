export type Fact = 'title' | 'author' | 'site' | 'publishedAt' | 'language';
export type Facts = Partial<Record<Fact, string>>;

/** A source as far as correcting it needs it. */
export interface Correctable extends Readonly<Record<Exclude<Fact, 'publishedAt'>, string>> {
  readonly id: string;
  readonly version: number;
  readonly publishedAt: string | null;
}

/** Where facts are. Writing throws what the server refuses. */
export interface FactStore {
  read(id: string): Promise<Correctable>;
  write(id: string, facts: Facts & { readonly version: number }): Promise<Correctable>;
}

/** Corrects facts; gives what takes the correction back. Throws what the server refuses. */
export type CorrectFacts = (source: Correctable, facts: Facts) => Promise<() => Promise<unknown>>;

const valuesOf = (source: Correctable, of: readonly string[]): Facts =>
  Object.fromEntries(of.map((fact) => [fact, source[fact as Fact] ?? '']));

/**
 * Corrections of one source are sent one after the other, each upon the version the one before made. What takes one back
 * goes by the facts themselves, not by the version: later corrections of other facts stay.
 */
export function factCorrector({ read, write }: FactStore): CorrectFacts {
  const turns = new Map<string, Promise<unknown>>();
  const versions = new Map<string, number>();
  const patch = async (id: string, version: number, facts: Facts): Promise<Correctable> => {
    const stored = await write(id, { version, ...facts });
    versions.set(id, stored.version);
    return stored;
  };
  const inTurn = <T>(id: string, work: () => Promise<T>): Promise<T> => {
    const turn = (turns.get(id) ?? Promise.resolve()).then(work, work);
    turns.set(id, turn);
    const forget = (): void => void (turns.get(id) === turn && turns.delete(id));
    turn.then(forget, forget);
    return turn;
  };
  const takeBack = async (id: string, written: Facts, before: Facts): Promise<void> => {
    const now = await read(id);
    const names = Object.keys(written) as Fact[];
    const there = valuesOf(now, names);
    if (names.some((fact) => there[fact] !== written[fact]))
      throw new Error('It was corrected again since: nothing was taken back.');
    await patch(id, now.version, before);
  };
  return (source, facts) =>
    inTurn(source.id, async () => {
      const names = Object.keys(facts);
      const before = valuesOf(source, names);
      const stored = await patch(source.id, Math.max(source.version, versions.get(source.id) ?? 0), facts);
      return () => inTurn(source.id, () => takeBack(source.id, valuesOf(stored, names), before));
    });
}
