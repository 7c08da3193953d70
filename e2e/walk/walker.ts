import type { Page } from '@playwright/test';
import type { Annotation, LibraryOutline, SourceDetail, SourcePage, SourceRow } from '@avrelle/core/wire';

/** Somebody who does one thing after another, by chance. */
export interface Walker {
  readonly page: Page;
  readonly id: string;
  /** The source both read, and its class. */
  readonly shared: { readonly sourceId: string; readonly classId: string; readonly text: string };
  /** 0 up to 1. */
  random(): number;
  pick<T>(of: readonly T[]): T;
  /** A word that was never typed before. */
  word(): string;
  get<T>(path: string): Promise<T>;
  /** What the browser complained of, and answers that say the server broke, since this was asked last. */
  faults(): readonly string[];
}

/** What a step leaves to be checked. */
export interface Outcome {
  /** Words that were typed: they are stored, or still on the screen. */
  readonly typed?: string;
  /** Takes it back, as one does. */
  undo?(): Promise<void>;
}

export interface Step {
  readonly name: string;
  /** How often it is taken, beside the others. */
  readonly weight: number;
  /** Undefined where there was nothing to do it to. */
  run(walker: Walker): Promise<Outcome | undefined>;
}

/** Waits until something holds; says what it was waiting for when it never does. */
export async function until(
  what: string | (() => string),
  holds: () => Promise<boolean>,
  timeout = 15_000,
): Promise<void> {
  const end = Date.now() + timeout;
  for (;;) {
    if (await holds().catch(() => false)) return;
    if (Date.now() > end) throw new Error(`It did not come to this: ${typeof what === 'string' ? what : what()}`);
    await new Promise((later) => setTimeout(later, 60));
  }
}

export const isReading = (page: Page): boolean => new URL(page.url()).pathname.startsWith('/source/');

export const sourcesOf = async (walker: Walker, q = ''): Promise<SourcePage> => {
  const ahead = -new Date().getTimezoneOffset();
  return walker.get<SourcePage>(`/api/sources?limit=200&sort=title&ahead=${ahead}&q=${encodeURIComponent(q)}`);
};
/** One's own texts: nobody else reads them. */
export const ownTexts = async (walker: Walker): Promise<readonly SourceRow[]> =>
  (await sourcesOf(walker)).sources.filter((s) => s.owned && s.id !== walker.shared.sourceId);

export const marksOf = async ({ get, shared, id }: Walker): Promise<readonly Annotation[]> =>
  (await get<Annotation[]>(`/api/sources/${shared.sourceId}/annotations`)).filter(
    (a) => a.author.id === id && !a.deleted,
  );

/** Everything of one's own that a step may change and its undoing must give back; what one reads is begun by that. */
export async function stateOf(walker: Walker): Promise<string> {
  const [sources, marks, outline] = await Promise.all([
    sourcesOf(walker),
    marksOf(walker),
    walker.get<LibraryOutline>('/api/library'),
  ]);
  const kept = sources.sources.map(({ id, title, author, state, tags }) => ({
    id,
    title,
    author,
    tags: tags.toSorted(),
    ...(id === walker.shared.sourceId ? {} : { state }),
  }));
  const written = marks
    .map(({ id, note, kind, tags, classIds, anchor }) => ({
      id,
      note,
      kind: kind.code,
      tags: tags.toSorted(),
      classIds: classIds.toSorted(),
      at: anchor?.position,
    }))
    .toSorted((a, b) => a.id.localeCompare(b.id));
  const collections = outline.collections.map(({ id, name, count }) => ({ id, name, count }));
  return [...kept, ...written, ...collections].map((each) => JSON.stringify(each)).join('\n');
}

export const remarksOf = async (walker: Walker): Promise<string> => {
  const { sources } = await sourcesOf(walker);
  const all = await Promise.all(sources.map(({ id }) => walker.get<SourceDetail>(`/api/sources/${id}`)));
  return all.map((s) => s.remark).join('\n');
};
