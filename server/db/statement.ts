import type Sqlite from 'better-sqlite3';

export type Value = string | number | bigint | Buffer | null;
/** One after the other, or by their names. */
export type Params = readonly Value[] | readonly [Readonly<Record<string, Value>>];

type Cells = readonly unknown[];
type Row = Record<string, unknown>;

/** A prepared statement whose columns are spelled as properties are everywhere else: `source_id` comes as `sourceId`. */
export class Statement {
  /** Of the columns. */
  private readonly names: readonly string[];

  constructor(private readonly statement: Sqlite.Statement) {
    this.names = statement.reader ? statement.columns().map(({ name }) => property(name)) : [];
    // Rows made here from their cells cost a third less than those the driver makes.
    if (statement.reader) statement.raw(true);
  }

  all(params: Params): Row[] {
    return (this.statement.all(...params) as Cells[]).map((cells) => this.row(cells));
  }

  get(params: Params): Row | undefined {
    const cells = this.statement.get(...params) as Cells | undefined;
    return cells && this.row(cells);
  }

  /** The number of rows changed. */
  run(params: Params): number {
    return this.statement.run(...params).changes;
  }

  private row(cells: Cells): Row {
    const row: Row = {};
    this.names.forEach((name, n) => {
      row[name] = cells[n];
    });
    return row;
  }
}

const property = (column: string): string =>
  column.replace(/_([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
