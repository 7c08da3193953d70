import type { SourceId } from '@avrelle/core/wire';
import { useDocument } from '../../document/document-context';
import { useSession } from '../../session/reader-context';
import { useSetHere } from '../../../data/queries';
import { useTools } from '../../session/tools-context';
import { Player } from './Player';

/** The player of a recording, above its words; nothing for other sources. What is only shown is not marked. */
export function Recording({ isShown = false }: { readonly isShown?: boolean }) {
  const { source, visible } = useSession();
  const { page, reveal } = useDocument();
  const { player, marking, navigation } = useTools();
  const isOrdered = useIsOrdered(source.id);
  if (source.kind !== 'audio' && source.kind !== 'video') return <span />;
  return (
    <Player
      ref={player}
      source={source}
      isOrdered={isOrdered && !isShown}
      page={page}
      threads={visible}
      onMark={isShown ? undefined : (stretch, block) => marking.writeAt({ type: 'time', ...stretch }, block)}
      onOpen={navigation.goToMark}
      onFollow={reveal}
    />
  );
}

/** Whether a class of mine is to hear it in order. */
function useIsOrdered(sourceId: SourceId): boolean {
  const { data } = useSetHere(sourceId);
  return data?.some(({ missing, isOpen, inOrder }) => missing !== null && isOpen && inOrder) ?? false;
}
