import type { QueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import type { Annotation } from '@avrelle/core/wire';
import type { Messages } from '../ui/Messages';
import { showAnnotation } from './annotation-cache';
import { wordsOf } from './api';
import type { Write } from './outbox/write';

interface Means {
  readonly client: QueryClient;
  readonly messages: Messages;
  /** Stores a write and sends it after those before it. */
  send(write: Write): Promise<readonly Annotation[]>;
}

/** Answers an annotation or an answer, and shows it; false where the server refused, which the person is told. */
export async function sendReply({ client, messages, send }: Means, to: Annotation, note: string): Promise<boolean> {
  try {
    const write: Write = { type: 'reply', id: v7(), parentId: to.id, rootId: to.rootId ?? to.id, note };
    for (const each of await send(write)) showAnnotation(client, each);
    return true;
  } catch (error) {
    messages.warn(wordsOf(error));
    return false;
  }
}
