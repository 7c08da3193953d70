import { useEffect, useState } from 'react';
import { clockTime } from '@avrelle/core/text';

const SECOND = 1_000;

/** How long ago something began, second by second. */
export function Elapsed({ since }: { readonly since: string }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), SECOND);
    return () => clearInterval(timer);
  }, []);
  return (
    <span role="timer" className="tabular-nums">
      {clockTime(Math.max(0, Math.floor((now - Date.parse(since)) / SECOND)))}
    </span>
  );
}
