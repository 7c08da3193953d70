import type { Db } from './database';

const EPOCH = "SELECT value FROM installation WHERE key = 'epoch'";
const SET_EPOCH = "UPDATE installation SET value = ? WHERE key = 'epoch'";

/** Which run of events the database is in; a backup put in its place has another. */
export const epochOf = (db: Pick<Db, 'get'>): string => db.get<{ value: string }>(EPOCH)!.value;
export const setEpoch = (db: Db, epoch: string): number => db.run(SET_EPOCH, epoch);
