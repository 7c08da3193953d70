import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { findDirective, parseTextDirective } from '@avrelle/core/anchor';
import { kindOf, type KindCode } from '@avrelle/core/key';
import { covered } from '@avrelle/core/reading';
import { mainText, sentences } from '@avrelle/core/text';
import type { Annotation, ClassRow, SourceDetail, SourceText } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { AudienceMenu, SeenBy } from './AudienceMenu';
import { useAudienceChoice } from './audience-choice';
import { KeysDialog } from './KeysDialog';
import { Legend } from './Legend';
import { MarginColumn } from './MarginColumn';
import type { NoteActions } from './NoteCard';
import type { NoteValues } from './NoteForm';
import type { StreamRange } from './page-frame';
import type { View } from './page-style';
import { RunningHead } from './RunningHead';
import { Notices } from './Notices';
import { isShown, SHOWN, threads, type Shown } from './shown';
import { Spine } from './Spine';
import { stepSentence } from './stepping';
import { indexOf } from './text-index';
import { reveal, useArrival } from './use-arrival';
import { useClicks } from './use-clicks';
import { useKeyboard } from './use-keyboard';
import { useLayout } from './use-layout';
import { draftKey, useMarks } from './use-marks';
import { usePage } from './use-page';
import { usePlacing } from './use-placing';
import { useReading, type Scroll } from './use-reading';
import { useSelection } from './use-selection';
import { useSharing } from './use-sharing';
import { useWide } from './use-wide';

interface Props {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly annotations: readonly Annotation[];
  readonly classes: readonly ClassRow[];
}

export interface Draft {
  readonly range: StreamRange;
  readonly note: string;
  readonly kind: KindCode;
}

const LEAST_MARGIN = 200;

export function Reader({ source, text, annotations, classes }: Props) {
  const me = useMe();
  const [view, setView] = useState<View>('main');
  const [shown, setShown] = useState<Shown>('all');
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [held, setHeld] = useState<string>();
  const [draft, setDraft] = useState<Draft>();
  const [lastKind, setLastKind] = useState<KindCode>('claim');
  const [keysOpen, setKeysOpen] = useState(false);
  const [status, setStatus] = useState('');
  const [seen, setSeen] = useState<Scroll>({ top: 0, height: 600 });
  const scroller = useRef<HTMLDivElement>(null);

  const { page, height, layout, onLoad } = usePage(view);
  const { having, memberOf, share } = useSharing(source, classes);
  const [audience, setAudience] = useAudienceChoice(source.id, memberOf);
  const marks = useMarks(source, text, me);
  const selected = useSelection(page);
  const wide = useWide();
  const { placed: all, unplaced } = useMemo(() => threads(annotations), [annotations]);
  const visible = useMemo(() => all.filter((t) => isShown(t.root, shown, me.id)), [all, shown, me.id]);
  const { places, draftPlace, blocks } = useLayout(page, layout, visible, draft?.range);
  const scroll = useCallback((): Scroll | undefined => scroller.current ? { top: scroller.current.scrollTop, height: scroller.current.clientHeight } : undefined, []);
  const spans = useReading(source, text.text, blocks, scroll);
  const goTo = useCallback((top: number) => scroller.current?.scrollTo({ top: Math.max(0, top) }), []);

  useEffect(() => {
    page?.painter.paint(visible.map(({ root, range }) => ({ ...range, kind: root.kind })));
  }, [page, visible]);
  useEffect(() => {
    page?.painter.open(visible.filter((t) => opened.has(t.root.id)).map((t) => t.range));
  }, [page, visible, opened]);

  const open = useCallback((id: string) => { setOpened((before) => new Set([...before, id])); setHeld(id); }, []);
  const findPassage = useCallback((passage: string) => { const directive = parseTextDirective(passage); return directive && findDirective(indexOf(text), directive); }, [text]);
  useArrival({ page, layout, places, goTo, open, find: findPassage, source });
  const { placing, mayWrite, choose, putHere, leave, accept, copyAddress } = usePlacing({ source, text, annotations, marks, page });

  const sentenceList = useMemo(() => sentences(text.text, source.language || 'en'), [text.text, source.language]);
  /** Asked of the page itself: keys come faster than React hears of a selection. */
  const selection = (): StreamRange | undefined => page?.adapter.selection();
  const mark = (kind: KindCode): void => {
    const selected = selection();
    if (!selected || !mayWrite()) return;
    if (placing) return putHere();
    const same = all.find(({ root, range }) => root.author.id === me.id && range.start === selected.start && range.end === selected.end);
    if (same && same.root.kind !== kind) void marks.change(same.root, { kind }, `made a ${kindOf(kind).name.toLowerCase()}`);
    if (same) open(same.root.id);
    else marks.create({ range: selected, kind, classIds: audience });
    setLastKind(kind);
    setStatus(`${kindOf(kind).name}: ${text.text.slice(selected.start, selected.end).slice(0, 80)}`);
    page?.adapter.select(undefined);
  };
  const write = (note: string, range = selection()): void => {
    if (!range || placing || !mayWrite()) return;
    page?.painter.found(undefined);
    setDraft({ range, note, kind: 'note' });
    page?.adapter.select(undefined);
  };
  const setDown = (values: NoteValues): void => {
    const id = marks.create({ ...values, range: draft!.range, classIds: audience });
    setDraft(undefined);
    setHeld(id);
    setStatus('Note set down');
    scroller.current?.querySelector('iframe')?.focus({ preventScroll: true });
  };
  const step = (direction: 1 | -1): void => {
    const from = blocks.find((b) => b.bottom > (scroll()?.top ?? 0) + 4)?.block.start ?? 0;
    const shownOnly = sentenceList.filter((s) => blocks.some((b) => b.block.start <= s.start && s.end <= b.block.end));
    const next = stepSentence(shownOnly, selection(), direction, from);
    if (!next || !page) return;
    page.adapter.select(next);
    reveal(page.adapter.boxes(next)[0]?.top, scroll(), goTo);
  };
  const walk = (direction: 1 | -1): void => {
    const placed = visible.filter((t) => places.has(t.root.id));
    const at = placed.findIndex((t) => t.root.id === held);
    const next = at >= 0 && !opened.has(held!) ? placed[at] : placed[at < 0 ? (direction === 1 ? 0 : placed.length - 1) : at + direction];
    if (!next) return;
    open(next.root.id);
    reveal(places.get(next.root.id)?.top, scroll(), goTo);
  };
  const letGo = (): void => { leave(); page?.adapter.select(undefined); page?.painter.found(undefined); setOpened(new Set()); setHeld(undefined); };
  const openMine = all.find((t) => t.root.id === held && opened.has(t.root.id) && t.root.author.id === me.id)?.root;
  useKeyboard(page, {
    selecting: () => Boolean(selection()), mark, markAgain: () => mark(lastKind), write, step, walk, letGo, undo: marks.undo, redo: marks.redo,
    remove: () => openMine && marks.remove(openMine), showKeys: () => setKeysOpen(true),
  });
  useClicks(page, visible, opened, held, setOpened, setHeld);

  const actions = useMemo((): NoteActions => ({
    toggle: (id) => { setOpened((before) => { const after = new Set(before); if (!after.delete(id)) after.add(id); return after; }); setHeld(id); },
    change: async (a, fields, words) => (fields.classIds ? await share(fields.classIds) : true) && marks.change(a, fields, words),
    remove: marks.remove, reply: marks.reply, choosePlace: choose, ...(source.address ? { copyAddress } : {}),
  }), [marks, share, choose, copyAddress, source.address]);
  const chooseAudience = async (classIds: readonly string[]): Promise<void> => { if (await share(classIds)) setAudience(classIds); };
  const menu = (label: string, classIds: readonly string[], onChoose: (ids: readonly string[]) => void, small = false) =>
    <AudienceMenu label={label} classIds={classIds} classes={classes} having={having} maySource={source.owned} onChoose={onChoose} small={small} />;

  const main = useMemo(() => mainText(text.text, text.outline).length, [text]);
  const readShare = Math.min(1, covered(spans) / Math.max(1, main));
  const counts = Object.fromEntries(SHOWN.map((s) => [s, all.filter((t) => isShown(t.root, s, me.id)).length])) as Record<Shown, number>;
  const fromClass = useLocation().state as { back?: { to: string; words: string } } | null;
  return (
    <main className="grid h-full min-h-0 grid-rows-[auto_auto_1fr_auto]">
      <RunningHead source={source} view={view} onView={setView} back={fromClass?.back ?? { to: '/library', words: 'Library' }} audience={menu('Writing for', audience, (ids) => void chooseAudience(ids))} />
      <div><Notices source={source} text={text.text} me={me.id} unplaced={unplaced} placing={placing} selecting={Boolean(selected)} onPutHere={putHere} onCancel={leave} onChoose={choose} onAccept={accept}
        onShow={(range) => { page?.painter.found(range); goTo((page?.adapter.boxes(range)[0]?.top ?? 0) - 120); }} /></div>
      <div className="grid min-h-0 grid-rows-[minmax(0,1fr)] grid-cols-[96px_1fr] max-[900px]:grid-cols-1">
        <Spine blocks={blocks} spans={spans} threads={visible} places={places} pageHeight={height} view={seen} text={text.text} onGo={goTo} />
        <div ref={scroller} className="relative min-h-0 overflow-y-auto overflow-x-hidden bg-sheet" onScroll={(e) => setSeen({ top: e.currentTarget.scrollTop, height: e.currentTarget.clientHeight })}>
          <div className="relative grid grid-cols-[1fr_360px] max-[900px]:grid-cols-1" style={{ minHeight: Math.max(height, LEAST_MARGIN) }}>
            <iframe title={`Text of ${source.title}`} src={`/snapshots/${source.versionId}/`} sandbox="allow-same-origin" scrolling="no" lang={source.language || undefined} className="w-full" style={{ height, visibility: layout > 0 ? 'visible' : 'hidden' }} onLoad={(e) => onLoad(e.currentTarget)} />
            <MarginColumn wide={wide} height={height} threads={visible} places={places} opened={opened} held={held} draft={draft} draftPlace={draftPlace} me={me.id} actions={actions} pageLoaded={layout > 0}
              audienceOf={(a) => a.author.id === me.id ? menu('Seen by', a.classIds, (ids) => void actions.change(a, { classIds: [...ids] }, 'audience changed'), true) : <SeenBy classIds={a.classIds} classes={classes} />}
              draftAudience={menu('For', audience, (ids) => void chooseAudience(ids), true)} draftKey={draftKey(source.id)}
              onSetDown={setDown} onDiscard={() => setDraft(undefined)} onWholePage={() => setView('kept')} />
          </div>
        </div>
      </div>
      <Legend selecting={Boolean(selected)} shown={shown} counts={counts} readShare={readShare} minutesLeft={Math.round(source.minutes * (1 - readShare))} onKind={mark} onShow={setShown} onKeys={() => setKeysOpen(true)} />
      <p className="sr-only" role="status">{status}</p>
      <KeysDialog open={keysOpen} onOpenChange={setKeysOpen} />
    </main>
  );
}
