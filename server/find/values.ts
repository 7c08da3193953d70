import type { Value } from '../db/statement';

/** A condition in SQL; its values are bound, never written into it. */
export class Values {
  readonly bound: Record<string, Value> = {};
  /** Tables that are made once for the whole statement. */
  private readonly tables: string[] = [];
  private count = 0;

  /** Binds a value and gives what stands for it. */
  hold(value: Value): string {
    const name = `v${this.count++}`;
    this.bound[name] = value;
    return `@${name}`;
  }

  /** Holds the rows of a query as a table of its own, once for all who ask for the same, and gives its name. */
  table(sql: string): string {
    const at = this.tables.indexOf(sql);
    return `t${at >= 0 ? at : this.tables.push(sql) - 1}`;
  }

  get with(): string {
    return this.tables.length ? `WITH ${this.tables.map((sql, n) => `t${n} AS MATERIALIZED (${sql})`).join(', ')}` : '';
  }
}

/** A pattern for LIKE in which only the ends are open; its escape character is `\`. */
export const within = (words: string): string => `%${words.replace(/[\\%_]/g, '\\$&')}%`;
