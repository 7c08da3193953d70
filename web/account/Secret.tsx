import { useState, type ReactNode } from 'react';
import { DialogFrame } from '../ui/DialogFrame';

interface Props {
  readonly title: string;
  readonly value: string;
  readonly children: ReactNode;
  readonly onClose: () => void;
}

/** Something that is shown this once. */
export function Secret({ title, value, children, onClose }: Props) {
  const [copied, setCopied] = useState('');
  const copy = (): void =>
    void navigator.clipboard.writeText(value).then(
      () => setCopied('It is on the clipboard.'),
      () => setCopied('It could not be copied; select it and copy it yourself.'),
    );
  return (
    <DialogFrame title={title} onClose={onClose}>
      <p className="text-[15px] text-soft">{children}</p>
      <p className="my-4 break-all border-y border-rule py-3 font-mono text-[15px]" data-secret>
        {value}
      </p>
      <div className="flex flex-wrap items-center gap-5">
        <button className="press" onClick={copy}>
          Copy
        </button>
        <button className="act" onClick={onClose}>
          Done
        </button>
        <span role="status" className="text-[14px] text-soft">
          {copied}
        </span>
      </div>
    </DialogFrame>
  );
}
