import { OfClass, PartHead } from '../ClassPart';
import { GroupsForm } from './GroupsForm';

/** Who is in which group of a class. */
export default function GroupsPage() {
  return (
    <OfClass>
      {(c) => (
        <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
          <PartHead of={c} title="Groups">
            A note can be for one group alone, and a reading set for some. Teachers see what every group writes.
          </PartHead>
          {c.role === 'student' ? (
            <p className="p-8 text-soft">Groups are made by the teachers of the class.</p>
          ) : (
            <GroupsForm of={c} />
          )}
        </main>
      )}
    </OfClass>
  );
}
