import { createContext, useContext, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import type { ClassId, PersonId } from '@avrelle/core/wire';
import { RoomConnection, type RoomView } from './room-connection';

export const RoomContext = createContext<RoomConnection | undefined>(undefined);

/** The room one is in. */
export function useRoom(): RoomConnection {
  const room = useContext(RoomContext);
  if (!room) throw new Error('A part of a page that is shown stands outside of its room.');
  return room;
}

/** A part of what is known of it. */
export const useRoomView = <T>(select: (view: RoomView) => T): T => useStore(useRoom().store, select);

/** In the room of a class as long as the page is open; undefined for a moment before. */
export function useConnection(classId: ClassId, me: PersonId): RoomConnection | undefined {
  const [room, setRoom] = useState<RoomConnection>();
  useEffect(() => {
    const made = new RoomConnection(classId, me);
    setRoom(made);
    return () => made.close();
  }, [classId, me]);
  return room;
}
