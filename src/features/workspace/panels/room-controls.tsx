import { capital } from '../../../core/brief/amounts';
import type { Surroundings } from '../../../core/brief/brief';

type RoomSurroundings = Extract<Surroundings, { kind: 'room' }>;
import { ROOM_KEYS, ROOMS } from '../../../core/lights/room/room';

/** Which room's light it is. */
export function RoomControls({
  room,
  onSet
}: {
  room: RoomSurroundings;
  onSet: (part: Partial<RoomSurroundings>) => void;
}) {
  return (
    <div className="sec">
      <p className="say">
        The light of a room that is not modelled, seen from its middle; turn it until its windows lie well.
      </p>
      <div className="list" role="group" aria-label="Rooms">
        {ROOM_KEYS.map((key) => (
          <button key={key} type="button" aria-pressed={room.room === key} onClick={() => onSet({ room: key })}>
            {capital(ROOMS[key].name)}
          </button>
        ))}
      </div>
    </div>
  );
}
