/** What is pasted, made fit for an editor without tables: each row becomes a line, its cells parted by a bar. */
export function withoutTables(html: string): string {
  if (!/<t[dh][\s>]/i.test(html)) return html;
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const table of [...body.querySelectorAll('table')]) {
    const lines = [...table.rows].map((row) =>
      [...row.cells].map((cell) => (cell.textContent ?? '').trim().replace(/\s+/g, ' ')).join(' | '),
    );
    table.replaceWith(
      ...lines
        .filter((line) => line.replace(/[ |]/g, '') !== '')
        .map((line) => Object.assign(body.ownerDocument.createElement('p'), { textContent: line })),
    );
  }
  return body.innerHTML;
}

/** Only what says that it is an address becomes a link by being typed: “gauge.it” are words. */
export const isTypedAddress = (words: string): boolean => /^(https?:\/\/|www\.)\S+\.\S/i.test(words);
