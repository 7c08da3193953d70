import type { Value } from '../db/database';

/** A condition in SQL; its values are bound, never written into it. */
export class Values {
  readonly bound: Record<string, Value> = {};
  /** Tables that are made once for the whole statement, as `WITH` names them. */
  readonly tables: string[] = [];
  private count = 0;

  /** Binds a value and gives what stands for it. */
  hold(value: Value): string {
    const name = `v${this.count++}`;
    this.bound[name] = value;
    return `@${name}`;
  }

  /** Holds the rows of a query as a table of its own and gives its name. */
  table(sql: string): string {
    const name = `t${this.tables.length}`;
    this.tables.push(`${name} AS MATERIALIZED (${sql})`);
    return name;
  }

  get with(): string { return this.tables.length ? `WITH ${this.tables.join(', ')}` : ''; }
}

/** A pattern for LIKE in which only the ends are open; its escape character is `\`. */
export const within = (words: string): string => `%${words.replace(/[\\%_]/g, '\\$&')}%`;
