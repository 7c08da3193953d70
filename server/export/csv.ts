import type { FastifyReply } from 'fastify';
import Papa from 'papaparse';
import { sendFile } from './attachment';

type Cell = string | number;

/** The package's own rule passes over values of several lines. */
const FORMULA = /^[=+\-@\t\r]/;

/** A table by RFC 4180; a value that a spreadsheet would take for a formula is marked as text. */
export const csvOf = (fields: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  Papa.unparse(
    { fields: [...fields], data: rows.map((row) => [...row]) },
    { escapeFormulae: FORMULA, newline: '\r\n' },
  );

/** The same as a file to be downloaded. */
export const sendCsv = (reply: FastifyReply, name: string, table: string): FastifyReply =>
  sendFile(reply, { type: 'text/csv', name }, table);
