import { useParams } from 'react-router';
import { STARTING_LEGEND } from '@avrelle/core/legend';
import type { Assignment, ClassDetail } from '@avrelle/core/wire';
import { useClass, useClassAssignments, useLegends, useSource } from '../../data/queries';
import { PageHeading } from '../../ui/PageHeading';
import { State } from '../../ui/State';
import { Tint } from '../../ui/Tint';
import { ChooseReading } from './ChooseReading';
import { SetForm } from './SetForm';

/** Where a reading is set for a class: which one, then what is asked for. */
export default function SetReadingPage() {
  const { id = '', sourceId } = useParams();
  const found = useClass(id);
  const set = useClassAssignments(id);
  const c = found.data;
  return (
    <main className="min-h-0 overflow-y-auto bg-sheet">
      <State of={found}>
        {c && (
          <div className="mx-auto max-w-[760px] px-[30px] py-6 max-[900px]:px-4">
            <p className="mb-1.5 text-[14px]">
              <Tint tint={c.tint}>{c.name}</Tint>
            </p>
            {c.role === 'student' ? (
              <>
                <PageHeading>Set a reading</PageHeading>
                <p className="mt-2 text-soft">Readings are set by the teachers of the class.</p>
              </>
            ) : (
              <State of={set}>
                {sourceId ? (
                  <SetOne
                    of={c}
                    sourceId={sourceId}
                    set={set.data?.assignments.find((a) => a.source.id === sourceId)}
                  />
                ) : (
                  <ChooseReading of={c} set={set.data?.assignments ?? []} />
                )}
              </State>
            )}
          </div>
        )}
      </State>
    </main>
  );
}

interface OneProps {
  readonly of: ClassDetail;
  readonly sourceId: string;
  readonly set: Assignment | undefined;
}

function SetOne({ of: c, sourceId, set }: OneProps) {
  const source = useSource(sourceId);
  const legends = useLegends();
  const kinds = [...(legends.data?.classes.find((l) => l.ownerId === c.id)?.kinds ?? []), ...STARTING_LEGEND];
  return (
    <State of={source}>
      <State of={legends}>
        {source.data && (
          <>
            <PageHeading window={`Set “${source.data.title}”`} dir="auto">
              {source.data.title}
            </PageHeading>
            <SetForm
              key={sourceId}
              place={{ id: c.id, sourceId }}
              className={c.name}
              kinds={kinds}
              groups={c.groups}
              set={set}
              isRecording={source.data.kind === 'audio' || source.data.kind === 'video'}
            />
          </>
        )}
      </State>
    </State>
  );
}
