import type { ReactNode } from 'react';

const BAR = [
  'relative flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule bg-wash px-6 py-2 text-[14px]',
  'max-[900px]:px-4 pointer-coarse:items-center',
].join(' ');
/** On a phone the page needs the room: what stands around it is one line each, and is moved sideways. */
export const ONE_LINE = [
  'max-[600px]:flex-nowrap max-[600px]:overflow-x-auto max-[600px]:whitespace-nowrap',
  'max-[600px]:[&>*]:shrink-0 max-[600px]:[&>*]:flex-nowrap',
].join(' ');

interface Props {
  readonly isOneLine?: boolean;
  readonly children: ReactNode;
}

/** Above a page that is shown: by whom or to whom, and what can be done about it. */
export const Bar = ({ isOneLine = false, children }: Props) => (
  <header className={isOneLine ? `${BAR} ${ONE_LINE}` : BAR}>{children}</header>
);
