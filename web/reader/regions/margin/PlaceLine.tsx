import { Quote } from '../../../ui/Quote';
import type { Annotation } from '@avrelle/core/wire';
import type { NoteActions } from '../../session/note-actions';
import { outcomeOf } from '../../model/thread';

/** Under an open note: that its words have changed since, or that its place is not sure; its author settles it. */
export function PlaceLine({
  annotation,
  mine,
  actions,
}: {
  annotation: Annotation;
  mine: boolean;
  actions: NoteActions;
}) {
  const fate = outcomeOf(annotation);
  const place = annotation.place;
  if ((fate !== 'edited' && fate !== 'unsure') || !place || place.start === null || place.end === null) return null;
  const range = { start: place.start, end: place.end };
  return (
    <div
      className={`my-1.5 border-l-2 pl-2.5 text-[13px] text-soft ${fate === 'unsure' ? 'border-brick' : 'border-strong'}`}
    >
      <p>
        {fate === 'unsure' ? (
          <b className="font-semibold text-brick">Not sure this is the place.</b>
        ) : (
          'The words have changed since.'
        )}{' '}
        They were: <Quote of={annotation} className="italic" />
      </p>
      {mine && (
        <p className="mt-1 flex flex-wrap gap-x-4">
          <button className="act" onClick={() => void actions.change(annotation, { place: range }, 'place confirmed')}>
            It is here
          </button>
          <button className="act" onClick={() => actions.choosePlace(annotation)}>
            Elsewhere…
          </button>
        </p>
      )}
    </div>
  );
}
