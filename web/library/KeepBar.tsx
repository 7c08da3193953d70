import { useEffect, useRef, useState, type FormEvent } from 'react';
import { Link, useLocation } from 'react-router';
import type { TO_KEEP } from '../commands/use-application-commands';
import { useArrivals } from '../data/queries';
import { Jobs } from '../gather/Jobs';
import { useKeeping } from '../gather/use-keeping';
import { Alert } from '../ui/Alert';
import { FileButton } from '../ui/FileButton';
import { useLatest } from '../ui/use-latest';
import { useFileDrop } from '../ui/use-file-drop';
import { ACCEPTED } from './accepted';

/** Keeping a page by its address, or files chosen, dropped or pasted; below, what is under way. */
export function KeepBar() {
  const [address, setAddress] = useState('');
  const keeping = useKeeping();
  const { keep, upload, wrong, busy } = keeping;
  const held = useFileDrop((files) => void upload(files));
  const waiting = useArrivals().data?.length ?? 0;
  const begin = (look: boolean): void => {
    void keep(address, look ? { look } : {}).then((job) => {
      if (job) setAddress((now) => (now === address ? '' : now));
    });
  };
  const latest = useLatest(upload);
  const field = useAskedFor();
  useEffect(() => {
    const onPaste = (event: ClipboardEvent): void => {
      if (event.clipboardData?.files.length) {
        event.preventDefault();
        void latest.current(event.clipboardData.files);
      }
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, [latest]);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    begin(false);
  };
  return (
    <section aria-label="Keep a source" className="border-b border-rule bg-paper px-[30px] py-3 max-[900px]:px-4">
      <form onSubmit={submit} noValidate className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <input
          ref={field}
          aria-label="Address of a page"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          placeholder="Paste an address to keep it"
          type="url"
          className="field min-w-[180px] flex-1"
        />
        <button className="press" disabled={busy || !address.trim()}>
          Keep
        </button>
        <button
          type="button"
          className="act text-[14px]"
          disabled={busy || !address.trim()}
          onClick={() => begin(true)}
          title="See it before it is kept: how much of it, how wide, without what"
        >
          Look first
        </button>
        <span className="text-[14px] text-soft">
          or{' '}
          <FileButton label="File to keep" accept={ACCEPTED} multiple onChosen={(files) => void upload(files)}>
            choose files
          </FileButton>
          , drop them, paste a picture
        </span>
        <Link to="/gather" className="act ml-auto text-[14px]">
          {waiting > 0 ? `${waiting} new to look at` : 'Lists, feeds, letters'}
        </Link>
      </form>
      {wrong && (
        <div className="mt-2">
          <Alert>{wrong}</Alert>
        </div>
      )}
      <Jobs keeping={keeping} />
      {held && (
        <div className="pointer-events-none fixed inset-3 z-40 grid place-items-center border-2 border-dashed border-tide bg-paper/85">
          <p className="font-read text-[20px]">Drop the files here to keep them</p>
        </div>
      )}
    </section>
  );
}

/** The field of the address, in focus when somebody came here to keep a page. */
function useAskedFor() {
  const field = useRef<HTMLInputElement>(null);
  const { state, key } = useLocation() as { state: Partial<typeof TO_KEEP> | null; key: string };
  const asked = state?.keep === true;
  useEffect(() => {
    if (asked) field.current?.focus();
  }, [asked, key]);
  return field;
}
