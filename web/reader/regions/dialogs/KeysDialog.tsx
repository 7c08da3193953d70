import { Dialog } from 'radix-ui';

const keysFor = (kinds: number): readonly (readonly [string, string])[] => [
  ['] and [', 'select the next or the previous sentence'],
  ['Shift with arrows', 'grow or shrink what is selected'],
  [`1 to ${kinds}`, 'mark the selected words as that kind of the Key; or make the open mark one'],
  ['Enter', 'mark them as the last kind used'],
  ['any letter', 'begin a note beside the selected words'],
  ['Ctrl Enter', 'set the note down'],
  ['. and ,', 'open the next or the previous mark'],
  ['g, Shift G', 'take hold of the end, or the beginning, of the open mark'],
  ['x', 'mark as I select, on or off'],
  ['a', 'mark an area or a point, of a page, a picture or the text'],
  ['d', 'draw; then a digit for each tool, Enter to draw it on the selected words'],
  ['f', 'find words in this source'],
  ['Space, b', 'play or pause a recording, go back five seconds'],
  ['m, s', 'note this moment of a recording, begin or end a stretch'],
  ['l, z', 'have it read aloud; nothing but the page'],
  ['Delete', 'delete the open mark, if it is mine'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, do again'],
  ['Esc', 'let go of the selection, fold the notes'],
  ['/', 'find in everything'],
  ['?', 'show these keys'],
];

export function KeysDialog({
  open,
  kinds,
  onOpenChange,
}: {
  open: boolean;
  kinds: number;
  onOpenChange: (open: boolean) => void;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="over fixed left-1/2 top-1/2 max-h-[90vh] w-[480px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-auto p-6"
        >
          <Dialog.Title className="mb-3 text-[20px]">Keys</Dialog.Title>
          <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">
            {keysFor(kinds).map(([key, does]) => (
              <div key={key} className="contents">
                <dt className="font-semibold whitespace-nowrap">{key}</dt>
                <dd className="text-soft">{does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close className="act mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
