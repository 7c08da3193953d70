import Sample from '../gather/Sample';
import { KeepBar } from '../library/KeepBar';

/** The Desk of who has kept nothing yet: where to begin. */
export default function FirstPage() {
  return (
    <div className="min-h-0 overflow-y-auto">
      <div className="max-w-[60ch] px-[30px] pb-5 pt-6 max-[900px]:px-4">
        <h2 className="text-[20px]">Begin with a page you want to read</h2>
        <p className="mt-2 text-soft">
          Paste its address and press Keep, or choose a file: a PDF, a book, a document, a recording. It is stored with
          its pictures, and opens with its words ready to mark. What you are reading, what waits and who answered you
          stand here from then on.
        </p>
      </div>
      <KeepBar />
      <div className="px-[30px] py-5 text-soft max-[900px]:px-4">
        <Sample />
      </div>
    </div>
  );
}
