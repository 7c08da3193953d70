import { useEffect, useState, type ReactNode } from 'react';
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useQueryClient } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { v7 } from 'uuid';
import { freeLook, STARTING_LEGEND, MOST_KINDS, moveKind, type Kind } from '@avrelle/core/legend';
import type { Legends, OwnedLegend, LegendOwnerId } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { keys, renew, useLegends } from '../data/queries';
import { Alert } from '../ui/Alert';
import { count } from '../ui/when';
import { KindRow } from './KindRow';
import { SIGNS } from './signs';

interface Props {
  readonly open: boolean;
  onOpenChange(open: boolean): void;
  /** The Legend to begin with: a class, or nothing for my own. */
  readonly ownerId?: LegendOwnerId | undefined;
}

/** The Legend as it is, to be changed: one's own, or that of a class one teaches. */
export default function LegendDialog({ open, onOpenChange, ownerId }: Props) {
  const client = useQueryClient();
  const { data } = useLegends();
  // How many marks there are of each kind changes with every mark.
  useEffect(() => void client.invalidateQueries({ queryKey: keys.legends }), [client]);
  const [chosen, setChosen] = useState(ownerId);
  const all = data ? [data.mine, ...data.classes.filter((k) => k.mayEdit || k.kinds.length > 0)] : [];
  const shown = all.find((k) => k.ownerId === chosen) ?? all[0];
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="over fixed left-1/2 top-1/2 flex max-h-[92vh] w-[620px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col p-6 max-[600px]:p-4"
        >
          <Dialog.Title className="text-[20px]">The Legend</Dialog.Title>
          {all.length > 1 && (
            <label className="mt-2 flex items-baseline gap-2 text-[14px] text-soft">
              of
              <select
                value={shown?.ownerId}
                onChange={(e) => setChosen(e.target.value)}
                className="field !w-auto text-ink"
              >
                {all.map((k) => (
                  <option key={k.ownerId} value={k.ownerId}>
                    {k.className ?? 'mine'}
                  </option>
                ))}
              </select>
            </label>
          )}
          {shown && <Editor key={shown.ownerId} owned={shown} onDone={() => onOpenChange(false)} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Kinds of a class have codes of their own, so that a code tells whose kind it is. */
const beginning = (owned: OwnedLegend): readonly Kind[] =>
  owned.className !== null && owned.kinds.length === 0
    ? STARTING_LEGEND.map((kind) => ({ ...kind, code: v7() }))
    : owned.kinds;

function introduction({ className, kinds }: Pick<OwnedLegend, 'className' | 'kinds'>): string {
  if (className === null) return 'Your kinds of highlight, in the order of their digits.';
  if (kinds.length > 0) return 'Whoever writes for this class marks with these kinds.';
  return 'This class has no Legend of its own yet: everybody marks with theirs. Make one here, and whoever writes for the class has these kinds at hand.';
}

/** The kinds as they are being changed. */
function useKinds(owned: OwnedLegend) {
  const [kinds, setKinds] = useState(() => beginning(owned));
  return {
    kinds,
    change: (code: string, to: Partial<Kind>): void =>
      setKinds((all) => all.map((k) => (k.code === code ? { ...k, ...to } : k))),
    remove: (code: string): void => setKinds((all) => all.filter((k) => k.code !== code)),
    add: (): void =>
      setKinds((all) => [
        ...all,
        { code: v7(), name: '', sign: SIGNS.find((s) => !all.some((k) => k.sign === s)) ?? '†', ...freeLook(all) },
      ]),
    move: (code: unknown, to: unknown): void =>
      setKinds((all) => {
        const place = (of: unknown): number => all.findIndex((k) => k.code === of);
        return moveKind(all, place(code), place(to));
      }),
  };
}

/** Making marks of one kind another: done at once, with a way back. */
function useReplacing({ ownerId }: OwnedLegend, onFailed: (error: unknown) => void) {
  const client = useQueryClient();
  /** What was replaced last; said here, as nothing outside the dialog can be reached. */
  const [replaced, setReplaced] = useState<{ readonly words: string; undo(): void }>();
  const replace = (from: Kind, to: Kind, ids?: readonly string[]): void => {
    const body = { from: from.code, to: to.code, ...(ids ? { ids } : {}) };
    call('POST /api/legends/:id/replace', { params: { id: ownerId }, body }).then(({ ids: changed }) => {
      void renew(client, 'kinds');
      setReplaced({
        words: `${count(changed.length, 'mark')} made ${to.name}.`,
        undo: () => replace(to, from, changed),
      });
    }, onFailed);
  };
  return { replaced, replace };
}

/** What is known of all Legends, with one as it is stored now. */
const withStored = (all: Legends, stored: OwnedLegend): Legends =>
  stored.className === null
    ? { ...all, mine: stored }
    : { ...all, classes: all.classes.map((k) => (k.ownerId === stored.ownerId ? stored : k)) };

interface EditorProps {
  readonly owned: OwnedLegend;
  onDone(): void;
}

function Editor({ owned, onDone }: EditorProps) {
  const client = useQueryClient();
  const { kinds, change, remove, add, move } = useKinds(owned);
  const [wrong, setWrong] = useState('');
  const failed = (error: unknown): void => setWrong(wordsOf(error));
  const { replaced, replace } = useReplacing(owned, failed);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const save = (): void => {
    const body = { version: owned.version, kinds };
    call('PUT /api/legends/:id', { params: { id: owned.ownerId }, body }).then((stored) => {
      client.setQueryData<Legends>(keys.legends, (all) => all && withStored(all, stored));
      void renew(client, 'kinds');
      onDone();
    }, failed);
  };
  if (!owned.mayEdit) return <ReadOnly owned={owned} />;
  return (
    <>
      <p className="mt-1 text-[14px] text-soft">{introduction(owned)} What is marked follows every change.</p>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => over && move(active.id, over.id)}
      >
        <SortableContext items={kinds.map((k) => k.code)} strategy={verticalListSortingStrategy}>
          <ol aria-label="Kinds" className="mt-3 min-h-0 overflow-y-auto">
            {kinds.map((kind, n) => (
              <KindRow
                key={kind.code}
                kind={kind}
                digit={n + 1}
                uses={owned.uses[kind.code] ?? 0}
                others={kinds.filter((k) => k.code !== kind.code && owned.kinds.some((o) => o.code === k.code))}
                last={kinds.length === 1}
                onChange={(to) => {
                  setWrong('');
                  change(kind.code, to);
                }}
                onReplace={(to) => replace(kind, to)}
                onRemove={() => remove(kind.code)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <Alert>{wrong}</Alert>
      <p role="status" className="text-[14px] text-soft">
        {replaced && (
          <>
            {replaced.words}{' '}
            <button className="act" onClick={replaced.undo}>
              Undo
            </button>
          </>
        )}
      </p>
      <Foot isFull={kinds.length >= MOST_KINDS} onAdd={add} onCancel={onDone} onSave={save} />
    </>
  );
}

interface FootProps {
  readonly isFull: boolean;
  onAdd(): void;
  onCancel(): void;
  onSave(): void;
}

function Foot({ isFull, onAdd, onCancel, onSave }: FootProps) {
  return (
    <div className="mt-4 flex items-center gap-5">
      <button className="act" disabled={isFull} onClick={onAdd}>
        {isFull ? 'Nine kinds: one for each digit' : 'Add a kind'}
      </button>
      <span className="ml-auto flex items-center gap-5">
        <button className="text-soft hover:text-ink" onClick={onCancel}>
          Cancel
        </button>
        <button className="press" onClick={onSave}>
          Save this Legend
        </button>
      </span>
    </div>
  );
}

function ReadOnly({ owned }: { owned: OwnedLegend }): ReactNode {
  return (
    <>
      <p className="mt-1 text-[14px] text-soft">The Legend of {owned.className}. Its teachers can change it.</p>
      <ol className="mt-3 grid grid-cols-2 gap-2">
        {owned.kinds.map((kind, n) => (
          <li key={kind.code}>
            {n + 1} {kind.sign} {kind.name}
          </li>
        ))}
      </ol>
      <Dialog.Close className="act mt-4 self-start">Close</Dialog.Close>
    </>
  );
}
