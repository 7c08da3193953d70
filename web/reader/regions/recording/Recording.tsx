import { useDocument } from '../../document/document-context';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { Player } from './Player';

/** The player of a recording, above its words; nothing for other sources. What is only shown is not marked. */
export function Recording({ isShown = false }: { readonly isShown?: boolean }) {
  const { source, visible } = useSession();
  const { page, reveal } = useDocument();
  const { player, marking, navigation } = useTools();
  if (source.kind !== 'audio' && source.kind !== 'video') return <span />;
  return (
    <Player
      ref={player}
      source={source}
      page={page}
      threads={visible}
      onMark={isShown ? undefined : (stretch, block) => marking.writeAt({ type: 'time', ...stretch }, block)}
      onOpen={navigation.goToMark}
      onFollow={reveal}
    />
  );
}
