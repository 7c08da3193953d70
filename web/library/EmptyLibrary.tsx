import Sample from '../gather/Sample';
import { DidYouMean } from '../ui/DidYouMean';

interface Props {
  readonly searched: boolean;
  /** The search with its words as they are probably meant. */
  readonly meant: string | undefined;
  onMeant(q: string): void;
}

/** Where nothing is found, or nothing was ever kept. */
export default function EmptyLibrary({ searched, meant, onMeant }: Props) {
  if (searched)
    return (
      <p className="max-w-[60ch] p-8 text-soft">
        <DidYouMean meant={meant} onMeant={onMeant} />
        Nothing here fits all of that. Take a part of the search away, or begin a word and let it be completed.
      </p>
    );
  return (
    <div className="max-w-[56ch] p-8">
      <h2 className="text-[18px]">Your reading belongs here</h2>
      <p className="mt-2 text-soft">
        Paste the address of a page above and press Keep: it is fetched, made complete, and opens with its text ready to
        mark. Files can be dropped here, too: PDF, books, documents, pictures, recordings, letters, saved pages.
      </p>
      <div className="mt-3">
        <Sample />
      </div>
    </div>
  );
}
