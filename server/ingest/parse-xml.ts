import { Document, Text, type ParentNode } from 'domhandler';
import { SaxesParser } from 'saxes';
import { decode, labelToName } from 'whatwg-encoding';
import { appendNodes, newElement, type PageTree } from './page-tree';

/** Elements go by their names without a prefix; attributes keep theirs. Undefined where it is not well-formed. */
export function parseXml(xml: Uint8Array | string): PageTree | undefined {
  const tree = new Document([]);
  const open: ParentNode[] = [tree];
  let broken = false;
  const put = (text: string): void => appendNodes(open.at(-1)!, [new Text(text)]);
  const parser = new SaxesParser({ xmlns: true });
  parser.on('error', () => {
    broken = true;
  });
  parser.on('opentag', ({ local, uri, attributes }) => {
    const values = Object.values(attributes).map(({ name, value }) => [name, value] as const);
    const element = newElement(local, Object.fromEntries(values), uri as typeof element.namespace);
    appendNodes(open.at(-1)!, [element]);
    open.push(element);
  });
  parser.on('closetag', () => void open.pop());
  parser.on('text', put);
  parser.on('cdata', put);
  parser.write(typeof xml === 'string' ? xml : decodeXml(xml)).close();
  return broken ? undefined : tree;
}

/** XML 1.0, 4.3.3: by its mark, else as it declares, else UTF-8. */
function decodeXml(bytes: Uint8Array): string {
  const start = Buffer.from(bytes.subarray(0, 300)).toString('latin1');
  const declared = /^<\?xml[^>]*?encoding\s*=\s*["']([\w.:-]+)["']/.exec(start)?.[1];
  return decode(bytes, labelToName(declared ?? '') ?? 'UTF-8');
}
