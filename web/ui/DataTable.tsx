import type { ReactNode } from 'react';
import { tableFeatures, useTable, type ColumnDef, type RowData } from '@tanstack/react-table';

/** No sorting or paging of its own: the server orders what it gives. */
export const PLAIN = tableFeatures({});
export type PlainColumn<Row extends RowData> = ColumnDef<typeof PLAIN, Row, unknown>;

/** Asked as a plain function: as a component it would be another one with each new list of columns, and close what is open in it. */
function drawn<Given>(template: string | ((given: Given) => ReactNode) | undefined, given: Given): ReactNode {
  return typeof template === 'function' ? template(given) : template;
}

interface Props<Row extends RowData> {
  readonly label: string;
  readonly columns: readonly PlainColumn<Row>[];
  readonly rows: readonly Row[];
  readonly idOf: (row: Row) => string;
  /** Ids of columns of numbers, which stand at the right. */
  readonly numbers?: readonly string[];
  /** Id of the column that takes what room is left, so that the others stand alike in tables below each other. */
  readonly fills?: string;
}

/** A ruled table of rows. */
export function DataTable<Row extends RowData>({ label, columns, rows, idOf, numbers = [], fills }: Props<Row>) {
  const table = useTable({
    features: PLAIN,
    columns: columns as PlainColumn<Row>[],
    data: rows as Row[],
    getRowId: idOf,
  });
  const side = (id: string): string => (numbers.includes(id) ? 'text-right' : 'text-left');
  const headed = (id: string): string => `${side(id)} ${id === fills ? 'w-full' : ''}`;
  return (
    <table aria-label={label} className="w-full text-[14px]">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="text-[13px] text-soft">
            {group.headers.map((header) => (
              <th key={header.id} scope="col" className={`py-1 pr-5 font-normal last:pr-0 ${headed(header.column.id)}`}>
                {drawn(header.column.columnDef.header, header.getContext())}
              </th>
            ))}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.id} className="border-t border-rule">
            {row.getAllCells().map((cell) => (
              <td
                key={cell.id}
                className={`py-1.5 pr-5 align-baseline last:pr-0 max-[760px]:whitespace-nowrap ${side(cell.column.id)}`}
              >
                {drawn(cell.column.columnDef.cell, cell.getContext())}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
