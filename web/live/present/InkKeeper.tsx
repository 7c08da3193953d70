import { useImperativeHandle, type Ref } from 'react';
import { PLAIN_NOTE } from '@avrelle/core/legend';
import type { ClassId } from '@avrelle/core/wire';
import { useSession } from '../../reader/session/reader-context';
import { useMessages } from '../../ui/Messages';
import { count } from '../../ui/when';
import { useRoom } from '../room-context';

/** Makes ordinary drawings of the class of what was drawn. */
export type Keep = () => void;

interface Props {
  readonly ref: Ref<Keep>;
  readonly classId: ClassId;
}

/** Knows the page that is shown, and so can keep what was drawn on it. */
export function InkKeeper({ ref, classId }: Props) {
  const room = useRoom();
  const messages = useMessages();
  const { writer, mayWrite } = useSession();
  useImperativeHandle(
    ref,
    (): Keep => () => {
      const { ink } = room.store.getState().shown;
      if (ink.length === 0 || !mayWrite()) return;
      for (const { ink: drawn } of ink)
        writer.create({
          ...drawn,
          kind: PLAIN_NOTE,
          audience: { classIds: [classId], teachersOnly: false, held: false, groupIds: [] },
          words: 'Drawing added',
        });
      room.say({ type: 'wipe' });
      messages.tell(`${count(ink.length, 'drawing')} kept: the class finds it in the text.`);
    },
    [room, messages, writer, mayWrite, classId],
  );
  return null;
}
