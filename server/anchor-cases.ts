import fs from 'node:fs/promises';
import { array, number, object, string, ValidationError } from 'yup';
import { describe, indexText, locateAll, type Located } from '@avrelle/core/anchor';

const casesSchema = array(
  object({
    name: string().defined(),
    before: string().defined(),
    after: string().defined(),
    spans: array(
      object({ start: number().required().integer().min(0), end: number().required().integer().min(0) }).required(),
    ).required(),
  }).required(),
).required();

interface Outcome {
  readonly state: Located['state'];
  readonly start: number | null;
  readonly end: number | null;
  readonly confidence: number;
}

/**
 * Describes every span in its case's `before`, then locates the anchors in `after`, knowing nothing of `before`, and
 * writes what became of them. Offsets are UTF-16 units, half-open. Rejects on a file that is not such a list, or a span
 * outside its text, and then writes nothing.
 */
export async function anchorCases(
  casesFile: string,
  resultsFile: string,
): Promise<{ readonly spans: number; readonly describeMs: number; readonly locateMs: number }> {
  const cases = await readCases(casesFile);
  let describeMs = 0;
  let locateMs = 0;
  let spans = 0;
  const results = cases.map(({ name, before, after, spans: given }): Outcome[] => {
    const started = performance.now();
    const former = indexText(before);
    const anchors = given.map((span, n) => {
      try {
        return describe(former, span);
      } catch (error) {
        throw new Error(`Case “${name}”, span ${n}: ${(error as Error).message}`, { cause: error });
      }
    });
    const described = performance.now();
    const found = locateAll(indexText(after), anchors);
    describeMs += described - started;
    locateMs += performance.now() - described;
    spans += given.length;
    return found.map(outcome);
  });
  await fs.writeFile(resultsFile, `${JSON.stringify(results)}\n`);
  return { spans, describeMs: Math.round(describeMs * 100) / 100, locateMs: Math.round(locateMs * 100) / 100 };
}

const outcome = (found: Located): Outcome =>
  found.state === 'lost'
    ? { state: 'lost', start: null, end: null, confidence: found.confidence }
    : { state: found.state, start: found.start, end: found.end, confidence: found.confidence };

async function readCases(file: string) {
  const text = await fs.readFile(file, 'utf8').catch((cause: NodeJS.ErrnoException) => {
    throw new Error(`${file} cannot be read (${cause.code}): check the path.`);
  });
  try {
    return casesSchema.validateSync(JSON.parse(text), { strict: true });
  } catch (error) {
    const why = error instanceof ValidationError ? error.message : `it is not JSON: ${(error as Error).message}`;
    throw new Error(
      `${file} is not a list of cases [{ "name", "before", "after", "spans": [{ "start", "end" }] }]: ${why}.`,
      { cause: error },
    );
  }
}
