import { useDocument } from '../../document/document-context';
import { useSession } from '../../session/reader-context';
import { useSetHere } from '../../../data/queries';
import { useTools } from '../../session/tools-context';
import { Player } from './Player';

interface Props {
  /** What is only shown is not marked, and goes where it is shown. */
  readonly isShown?: boolean;
}

/** The player of a recording, above its words; nothing for other sources. */
export function Recording({ isShown = false }: Props) {
  const { kind } = useSession().source;
  if (kind !== 'audio' && kind !== 'video') return <span />;
  return isShown ? <OfSource isShown isOrdered={false} /> : <AsSet />;
}

/** In order, where a class of mine is to hear it so. */
function AsSet() {
  const { data } = useSetHere(useSession().source.id);
  const isOrdered = data?.some(({ missing, isOpen, inOrder }) => missing !== null && isOpen && inOrder) ?? false;
  return <OfSource isShown={false} isOrdered={isOrdered} />;
}

function OfSource({ isShown, isOrdered }: { readonly isShown: boolean; readonly isOrdered: boolean }) {
  const { source, visible } = useSession();
  const { page, reveal } = useDocument();
  const { player, marking, navigation } = useTools();
  return (
    <Player
      ref={player}
      source={source}
      isOrdered={isOrdered}
      page={page}
      threads={visible}
      onMark={isShown ? undefined : (stretch, block) => marking.writeAt({ type: 'time', ...stretch }, block)}
      onOpen={navigation.goToMark}
      onFollow={reveal}
    />
  );
}
