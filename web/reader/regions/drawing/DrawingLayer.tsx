import { useState } from 'react';
import type { Strokes } from '@avrelle/core/ink';
import { useDocument } from '../../document/document-context';
import type { Laid } from '../../drawing/laid';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { Ink } from './Ink';
import { Pad } from './Pad';

const NOTHING: ReadonlyMap<Laid, Strokes> = new Map();

/** What was drawn, and while one draws the pad that takes the pointer. */
export function DrawingLayer() {
  const { store, me } = useSession();
  const { laid } = useDocument();
  const { drawing } = useTools();
  const expanded = useReader((s) => s.expanded);
  const [rubbed, setRubbed] = useState(NOTHING);
  const { on, tool, chosen, choose, redraw } = drawing;
  const open = (id: string): void => store.dispatch({ type: 'expand', id });
  const moving =
    on && tool === 'move' ? { me: me.id, chosen: chosen?.thread.root.id, choose, redraw, open } : undefined;
  return (
    <>
      {on && (
        <Pad drawing={drawing} mine={laid.filter((l) => l.thread.root.author.id === me.id)} onRubbed={setRubbed} />
      )}
      <Ink laid={laid} opened={expanded} rubbed={rubbed} moving={moving} />
    </>
  );
}
