import type { PersonId } from '@avrelle/core/wire';
export interface OpenStream {
  readonly personId: PersonId;
  /** The hash of the session it was opened in. */
  readonly session: string;
  end(): void;
}

/** Of one person at once: a stream serves all tabs of a browser. */
export const MOST_STREAMS = 24;

/** The streams and rooms that are listened to now. */
export class Streams {
  private readonly open = new Set<OpenStream>();

  add(stream: OpenStream): () => void {
    this.open.add(stream);
    return () => this.open.delete(stream);
  }

  /** How many a person has. */
  of(personId: PersonId): number {
    let count = 0;
    for (const stream of this.open) if (stream.personId === personId) count++;
    return count;
  }

  endPerson(personId: PersonId): void {
    for (const stream of this.open) if (stream.personId === personId) stream.end();
  }

  /** Nobody goes on listening in a session that was ended. */
  endSession(session: string): void {
    for (const stream of this.open) if (stream.session === session) stream.end();
  }
}
