import { NOTIFICATION_KINDS, type ClassDetail } from '@avrelle/core/wire';

type Send = <T>(by: string, method: 'GET' | 'PUT', url: string, payload?: object) => Promise<T>;

interface Where {
  readonly classId: string;
  readonly sourceId: string;
}

/** Ines follows a source and somebody she reads with, and gets mails by the hour; her teacher, in the morning. */
export async function seedNotifications(send: Send, { classId, sourceId }: Where): Promise<void> {
  const { members } = await send<ClassDetail>('ines', 'GET', `/api/classes/${classId}`);
  const tomas = members.find(({ name }) => name === 'Tomas Rell')!;
  await send('ines', 'PUT', `/api/sources/${sourceId}/followed`, { following: true });
  await send('ines', 'PUT', `/api/people/${tomas.id}/followed`, { following: true });
  for (const [who, every] of [
    ['ines', 'hour'],
    ['aldous', 'day'],
  ] as const)
    await send(who, 'PUT', '/api/notifications', {
      ...{ every, hour: 7, zone: 'Europe/London' },
      kinds: NOTIFICATION_KINDS.map((kind) => ({ kind, desk: true, mail: kind !== 'class' })),
    });
}
