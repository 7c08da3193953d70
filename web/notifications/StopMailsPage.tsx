import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { call } from '../data/call';
import { wordsOf } from '../data/api';
import { Alert } from '../ui/Alert';
import { PageHeading } from '../ui/PageHeading';

/** Where a mail leads that shall be the last: nothing is asked but whether it is meant, of nobody who is signed in. */
export default function StopMailsPage() {
  const { hash = '' } = useParams();
  const [ended, setEnded] = useState(false);
  const [wrong, setWrong] = useState<string>();
  const stop = (): void => {
    setWrong(undefined);
    call('POST /stop-mails/:hash', { params: { hash } }).then(
      () => setEnded(true),
      (error: unknown) => setWrong(wordsOf(error)),
    );
  };
  return (
    <main className="grid min-h-full place-items-center p-6">
      <div className="max-w-[460px]">
        <p className="font-read text-[32px] font-semibold italic leading-none text-tide">Avrelle</p>
        <div className="mt-6">
          <PageHeading>{ended ? 'No more mails come' : 'No more mails?'}</PageHeading>
        </div>
        <p role="status" className="mt-2">
          {ended
            ? 'What is new goes on standing on your Desk.'
            : 'What is new goes on standing on your Desk; it will no longer be sent to you.'}
        </p>
        <Alert>{wrong}</Alert>
        <p className="mt-4 flex items-baseline gap-5">
          {!ended && (
            <button className="press" onClick={stop}>
              Stop the mails
            </button>
          )}
          <Link to="/notifications" className="act">
            {ended ? 'Notifications' : 'Choose what comes instead'}
          </Link>
        </p>
      </div>
    </main>
  );
}
