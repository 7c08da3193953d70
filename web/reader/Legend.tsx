import { KEY, type KindCode } from '@avrelle/core/key';
import { Sign } from '../ui/Sign';
import { SHOWN, type Shown } from './shown';

interface Props {
  readonly selecting: boolean;
  readonly shown: Shown;
  readonly counts: Readonly<Record<Shown, number>>;
  readonly readShare: number;
  readonly minutesLeft: number;
  onKind(kind: KindCode): void;
  onShow(shown: Shown): void;
  onKeys(): void;
}

/** The Key itself; with words selected a kind marks them. Beside it, whose marks are shown and how much is left. */
export function Legend({ selecting, shown, counts, readShare, minutesLeft, onKind, onShow, onKeys }: Props) {
  return (
    <footer className="flex h-[50px] items-center gap-5 overflow-x-auto whitespace-nowrap border-t border-strong px-6 text-[14px] max-[900px]:px-3">
      <div role="group" aria-label="The Key: mark the selected words" className="flex items-center gap-1">
        {KEY.map(({ code, name }, index) => (
          <button key={code} title={selecting ? `Mark as ${name.toLowerCase()} (${index + 1})` : `${name}: select words, then press ${index + 1}`} onMouseDown={(e) => e.preventDefault()} onClick={() => onKind(code)} className={`flex items-baseline gap-[7px] px-1.5 py-1 hover:bg-wash ${selecting ? '' : 'cursor-default'}`}>
            <Sign kind={code} className="text-[16px]" /><span className={`kind-${code} px-px`}>{name}</span><small aria-hidden="true" className="text-[12px] text-faint max-[900px]:hidden">{index + 1}</small>
          </button>
        ))}
      </div>
      <span aria-live="polite" className="text-soft max-[1100px]:hidden">{selecting ? 'or type to write a note' : ''}</span>
      <div role="group" aria-label="Show marks" className="ml-auto flex items-center gap-2 text-soft">
        <span aria-hidden="true">Show</span>
        {SHOWN.map((which) => (
          <button key={which} aria-pressed={shown === which} onClick={() => onShow(which)} className={shown === which ? 'border-b-2 border-tide font-semibold text-ink' : 'hover:text-ink'}>{which}{which !== 'none' && shown === which ? ` ${counts[which]}` : ''}</button>
        ))}
      </div>
      <span className="text-soft">{Math.round(readShare * 100)} % read · {minutesLeft > 0 ? `${minutesLeft} min left` : 'nothing left'}</span>
      <button onClick={onKeys} aria-label="Keys" title="Keys" className="border border-strong px-1.5 text-[12px] text-soft">?</button>
    </footer>
  );
}
