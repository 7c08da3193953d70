import { useEffect, useRef, useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { v7 } from 'uuid';
import { ENCODINGS, type Encoding, type Job, type SourceDetail } from '@avrelle/core/wire';
import { useJobs, useVersions } from '../../../data/queries';
import { useJobBegun } from '../../../data/use-job-begun';
import { useWrite } from '../../../data/use-write';
import { useMessages } from '../../../ui/Messages';
import { day } from '../../../ui/when';
import { ACCEPTED } from '../../../library/accepted';

/** Which version is read, the others, what changed between them, and keeping the source again. */
export function VersionMenu({ source }: { source: SourceDetail }) {
  const sending = useWrite('POST /api/uploads/:id');
  const showJob = useJobBegun();
  const messages = useMessages();
  const file = useRef<HTMLInputElement>(null);
  const [begun, setBegun] = useState<string>();
  const onBegun = (job: Job): void => {
    setBegun(job.id);
    showJob(job);
    messages.tell('Being kept again. You can read on.');
  };
  const recording = source.kind === 'audio' || source.kind === 'video';
  const upload = (chosen: File): void => {
    const form = new FormData();
    form.append('source', source.id);
    form.append(recording && /\.(vtt|srt|txt)$/i.test(chosen.name) ? 'transcript' : 'file', chosen);
    sending.run({ params: { id: v7() }, file: form }, onBegun);
  };
  return (
    <>
      {begun && <JobWatch id={begun} onEnd={() => setBegun(undefined)} />}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="whitespace-nowrap hover:text-ink" title="Versions of this source">
          <span className="max-[900px]:hidden">kept </span>
          {day(source.versionKeptAt)}
          {source.newest > 1 && (
            <span className="max-[900px]:hidden">
              , {source.versionNumber} of {source.newest}
            </span>
          )}{' '}
          <span aria-hidden="true">▾</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content sideOffset={8} align="end" className="over min-w-[230px] py-1 text-[14px]">
            <VersionItems source={source} />
            <DropdownMenu.Separator className="my-1 border-t border-rule" />
            {source.newest > 1 && (
              <DropdownMenu.Item asChild>
                <Link to={`/source/${source.id}/changes`} className="item">
                  <span className="w-4" />
                  What changed
                </Link>
              </DropdownMenu.Item>
            )}
            {source.owned && (
              <KeepAgain source={source} recording={recording} onBegun={onBegun} onFile={() => file.current?.click()} />
            )}
            {!source.owned && source.newest === 1 && <p className="px-4 py-1.5 text-soft">The only version so far.</p>}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <input
        ref={file}
        type="file"
        hidden
        aria-label="Newer file"
        accept={ACCEPTED}
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          if (chosen) upload(chosen);
          e.target.value = '';
        }}
      />
    </>
  );
}

interface KeepAgainProps {
  readonly source: SourceDetail;
  readonly recording: boolean;
  onBegun(job: Job): void;
  onFile(): void;
}

/** How the owner keeps the source again, as a newer version. */
function KeepAgain({ source, recording, onBegun, onFile }: KeepAgainProps) {
  const keeping = useWrite('POST /api/sources/:id/again');
  const again = (more: { encoding?: Encoding } = {}): void =>
    keeping.run({ params: { id: source.id }, body: { id: v7(), ...more } }, onBegun);
  return (
    <>
      {source.address ? (
        <DropdownMenu.Item className="item" onSelect={() => again()}>
          <span className="w-4" />
          Keep again, as it is now
        </DropdownMenu.Item>
      ) : (
        <DropdownMenu.Item className="item" onSelect={onFile}>
          <span className="w-4" />
          {recording ? 'Upload a transcript or a newer file' : 'Upload a newer file'}
        </DropdownMenu.Item>
      )}
      <ReadAgainAs source={source} onChoose={(encoding) => again({ encoding })} />
    </>
  );
}

/** For letters that came out wrong: the same bytes, read in another encoding, as a version of their own. */
function ReadAgainAs({
  source: { facts, address, file },
  onChoose,
}: {
  source: SourceDetail;
  onChoose: (encoding: Encoding) => void;
}) {
  if (facts.encoding === undefined || (address === null && file === null)) return null;
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className="item">
        <span className="w-4" />
        Letters look wrong
        <span aria-hidden="true" className="ml-auto pl-3">
          ›
        </span>
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent
          sideOffset={2}
          collisionPadding={8}
          className="over max-h-[60vh] overflow-y-auto py-1 text-[14px]"
        >
          <DropdownMenu.Label className="px-4 py-1 text-[13px] text-soft">Read it again as</DropdownMenu.Label>
          {Object.entries(ENCODINGS).map(([name, words]) => (
            <DropdownMenu.Item
              key={name}
              className={`item ${name === facts.encoding ? 'font-semibold' : ''}`}
              disabled={name === facts.encoding}
              onSelect={() => onChoose(name as Encoding)}
            >
              <span className="w-4" aria-hidden="true">
                {name === facts.encoding ? '›' : ''}
              </span>
              {words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}

/** Asked for when the menu opens. */
function VersionItems({ source }: { source: SourceDetail }) {
  return (useVersions(source.id).data ?? []).map((v) => (
    <DropdownMenu.Item key={v.id} asChild>
      <Link
        to={`/source/${source.id}?version=${v.number}`}
        className={`item ${v.id === source.versionId ? 'font-semibold' : ''}`}
      >
        <span className="w-4" aria-hidden="true">
          {v.id === source.versionId ? '›' : ''}
        </span>
        Version {v.number}, {day(v.keptAt)}
      </Link>
    </DropdownMenu.Item>
  ));
}

/** Tells how keeping again ended. */
function JobWatch({ id, onEnd }: { id: string; onEnd: () => void }) {
  const messages = useMessages();
  const job = useJobs().data?.find((j) => j.id === id);
  useEffect(() => {
    if (job?.state !== 'failed' && job?.state !== 'done') return;
    if (job.state === 'failed') messages.warn(job.error?.detail ?? job.step);
    else messages.tell(`${job.step}.`);
    onEnd();
  }, [job, messages, onEnd]);
  return null;
}
