import { useState } from 'react';
import { Alert } from '../ui/Alert';
import { useKeeping } from './use-keeping';

/** A short text of ours to try things with; it is kept like any other file, and can be deleted like any other. */
const fetchSample = async (): Promise<File> => {
  const answer = await fetch('/sample.html');
  if (!answer.ok) throw new Error(String(answer.status));
  return new File([await answer.blob()], 'The Clock in the Net Loft.html', { type: 'text/html' });
};

/** For who has no page at hand to begin with. */
export default function Sample() {
  const { upload, wrong, busy } = useKeeping();
  const [missing, setMissing] = useState(false);
  const begin = (): void => {
    fetchSample().then(
      (file) => {
        setMissing(false);
        return upload([file]);
      },
      () => setMissing(true),
    );
  };
  return (
    <>
      <p>
        Nothing at hand?{' '}
        <button type="button" className="act" disabled={busy} onClick={begin}>
          Keep a sample page
        </button>
      </p>
      <Alert>{missing ? 'The sample did not come. Check your connection, and try again.' : wrong}</Alert>
    </>
  );
}
