import type Sqlite from 'better-sqlite3';

export type Value = string | number | bigint | Buffer | null;
/** One after the other, or by their names. */
export type Params = readonly Value[] | readonly [Readonly<Record<string, Value>>];

type Cells = readonly unknown[];
type Row = Record<string, unknown>;

/** A prepared statement whose columns are spelled as properties are everywhere else: `source_id` comes as `sourceId`. */
export class Statement {
  /** Of the columns; undefined where SQL spells none of them otherwise. */
  private readonly names: readonly string[] | undefined;

  constructor(private readonly statement: Sqlite.Statement) {
    const columns = statement.reader ? statement.columns().map(({ name }) => name) : [];
    if (!columns.some((name) => name.includes('_'))) return;
    this.names = columns.map(property);
    statement.raw(true);
  }

  all(params: Params): unknown[] {
    const rows = this.statement.all(...params);
    return this.names ? rows.map((cells) => this.row(cells as Cells)) : rows;
  }

  get(params: Params): unknown {
    const found = this.statement.get(...params);
    return this.names && found !== undefined ? this.row(found as Cells) : found;
  }

  /** The number of rows changed. */
  run(params: Params): number {
    return this.statement.run(...params).changes;
  }

  private row(cells: Cells): Row {
    const row: Row = {};
    this.names!.forEach((name, n) => {
      row[name] = cells[n];
    });
    return row;
  }
}

const property = (column: string): string =>
  column.replace(/_([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
