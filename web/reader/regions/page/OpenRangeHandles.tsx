import { useDocument } from '../../document/document-context';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { openIn } from '../../model/reader-state';
import { RangeHandles } from './RangeHandles';

/** Handles at the ends of my own mark that is at hand and open; on the newest version alone. */
export function OpenRangeHandles() {
  const { source, text, inText, me, writer } = useSession();
  const { page, layout } = useDocument();
  const { press } = useTools();
  const open = useReader(openIn);
  const thread = inText.find(({ root }) => root.id === open && root.author.id === me.id);
  if (!page || !thread || source.versionNumber !== source.newest) return null;
  return (
    <RangeHandles
      key={thread.root.id}
      page={page}
      layout={layout}
      thread={thread}
      text={text}
      language={source.language}
      onPress={press}
      onMove={(range) => writer.move(thread.root, range)}
    />
  );
}
