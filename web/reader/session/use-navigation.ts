import type { SourceDetail, SourceText } from '@avrelle/core/wire';
import type { StreamRange } from '../../page/page-frame';
import type { Thread } from '../model/thread';
import { stepSentence } from '../model/sentence-step';
import { spokenSentences } from '../../page/text-index';
import { reveal } from './use-arrival';
import type { Place, PlacedBlock } from '../document/use-layout';
import type { OpenPage } from '../document/use-page';
import type { Scroll } from './use-reading';

interface Given {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly page: OpenPage | undefined;
  readonly blocks: readonly PlacedBlock[];
  readonly threads: readonly Thread[];
  readonly places: ReadonlyMap<string, Place>;
  readonly opened: ReadonlySet<string>;
  readonly held: string | undefined;
  scroll(): Scroll | undefined;
  goTo(top: number): void;
  open(id: string): void;
  selection(): StreamRange | undefined;
}

/** Going through a source by keyboard: from sentence to sentence, from mark to mark. */
export function useNavigation({
  source,
  text,
  page,
  blocks,
  threads,
  places,
  opened,
  held,
  scroll,
  goTo,
  open,
  selection,
}: Given) {
  const step = (direction: 1 | -1): void => {
    const from = blocks.find((b) => b.bottom > (scroll()?.top ?? 0) + 4)?.block.start ?? 0;
    const next = stepSentence(spokenSentences(text, source.language, blocks), selection(), direction, from);
    if (!next || !page) return;
    page.adapter.select(next);
    reveal(page.adapter.boxes(next)[0]?.top, scroll(), goTo);
  };
  const goToMark = (id: string): void => {
    open(id);
    reveal(places.get(id)?.top, scroll(), goTo);
  };
  const walk = (direction: 1 | -1): void => {
    const placed = threads.filter((t) => places.has(t.root.id));
    const at = placed.findIndex((t) => t.root.id === held);
    const beyond = direction === 1 ? -1 : placed.length;
    const stays = at >= 0 && !opened.has(held!);
    const next = stays ? placed[at] : placed[(at < 0 ? beyond : at) + direction];
    if (next) goToMark(next.root.id);
  };
  return { step, walk, goToMark };
}
