import { useRoomView } from './room-context';

/** That the connection is lost, as long as it is. */
export function Connection() {
  const connected = useRoomView((view) => view.connected);
  return (
    <span role="status" className="font-semibold text-brick empty:hidden">
      {connected ? '' : 'Connection lost, trying again…'}
    </span>
  );
}
