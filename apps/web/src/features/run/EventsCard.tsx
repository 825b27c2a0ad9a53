import { RunEvent, formatTime } from '@tidypath/core';
import { Card } from '../../ui/Card';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';

/** Shown without being asked for. */
const FIRST = 3;
const GRAVE = new Set(['alarm', 'unchecked']);

function One({ event: { seconds, line, what, words } }: { event: RunEvent }) {
  return (
    <Txt kind="small" tone={GRAVE.has(what) ? 'danger' : 'quiet'}>
      {formatTime(seconds / 60)}
      {line > 0 ? ` line ${line}` : ''}: {words}
    </Txt>
  );
}

/** What happened, the newest first. */
export function EventsCard({ events }: { events: RunEvent[] }) {
  if (events.length === 0) return null;
  const all = [...events].reverse();
  const rest = all.slice(FIRST);
  return (
    <Card testID="events">
      <Txt heading bold>
        What happened
      </Txt>
      {all.slice(0, FIRST).map((event, i) => (
        <One key={all.length - i} event={event} />
      ))}
      {rest.length > 0 && (
        <Fold label={`${rest.length} before`}>{() => rest.map((event, i) => <One key={i} event={event} />)}</Fold>
      )}
    </Card>
  );
}
