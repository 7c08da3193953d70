import type { FastifyReply } from 'fastify';
import Papa from 'papaparse';
import { attachment } from './attachment';

type Cell = string | number;

/** A table by RFC 4180; a value that a spreadsheet would take for a formula is marked as text. */
export const csvOf = (fields: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { escapeFormulae: true, newline: '\r\n' });

/** The same as a file to be downloaded. */
export const sendCsv = (reply: FastifyReply, name: string, table: string): FastifyReply =>
  reply.type('text/csv; charset=utf-8').header('content-disposition', attachment(name)).send(table);
