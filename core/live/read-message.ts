import { ValidationError } from 'yup';
import { LIVE_MESSAGES, LONGEST_LIVE_MESSAGE, type LiveMessage } from '../wire/live';

/** A message as it is sent. Throws `ValidationError`, in words, where it is none. */
export function readLiveMessage(text: string): LiveMessage {
  const { type, ...rest } = record(text);
  const known = typeof type === 'string' && Object.hasOwn(LIVE_MESSAGES, type) ? type : undefined;
  if (known === undefined) throw new ValidationError('That is no message of a page that is shown.');
  const schema = LIVE_MESSAGES[known as LiveMessage['type']].noUnknown();
  return { type: known, ...schema.cast(schema.validateSync(rest, { strict: true })) } as LiveMessage;
}

function record(text: string): Readonly<Record<string, unknown>> {
  if (text.length > LONGEST_LIVE_MESSAGE) throw new ValidationError('That message is too long.');
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
  } catch {
    return {};
  }
}
