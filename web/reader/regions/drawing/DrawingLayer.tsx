import type { PersonId } from '@avrelle/core/wire';
import { useState } from 'react';
import type { Strokes } from '@avrelle/core/ink';
import { Ink } from './Ink';
import type { Laid } from '../../drawing/laid';
import { Pad } from './Pad';
import type { Drawing } from '../../drawing/use-drawing';

interface Props {
  readonly drawing: Drawing;
  readonly laid: readonly Laid[];
  readonly me: PersonId;
  readonly opened: ReadonlySet<string>;
  onOpen(id: string): void;
}

const NOTHING: ReadonlyMap<Laid, Strokes> = new Map();

/** What was drawn, and while one draws the pad that takes the pointer. */
export function DrawingLayer({ drawing, laid, me, opened, onOpen }: Props) {
  const [rubbed, setRubbed] = useState(NOTHING);
  const moving =
    drawing.on && drawing.tool === 'move'
      ? { me, chosen: drawing.chosen?.thread.root.id, choose: drawing.choose, redraw: drawing.redraw, open: onOpen }
      : undefined;
  return (
    <>
      {drawing.on && (
        <Pad drawing={drawing} mine={laid.filter((l) => l.thread.root.author.id === me)} onRubbed={setRubbed} />
      )}
      <Ink laid={laid} opened={opened} rubbed={rubbed} moving={moving} />
    </>
  );
}
