import { Button } from 'react-native-paper';
import { Setup, formatLength, groundOf, isBetter, partModel, reachOf, reachText } from '@tidypath/core';
import { useJob } from '../../session/JobContext';
import { Card, Fields } from '../../ui/Card';
import { Fold } from '../../ui/Fold';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';

/** Where the work stands on the table, what its paths leave of the travel, and the best place for it. */
export function PlaceCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup, computed } = useJob();
  const { x = 0, y = 0 } = setup.onTable ?? {};
  const paths = (computed.plan?.planned ?? []).flatMap(({ operationId, path }) => {
    const operation = setup.operations.find((o) => o.id === operationId);
    const tool = job.tools.find((t) => t.id === operation?.toolId);
    return tool ? [{ tool, path }] : [];
  });
  const reach = reachOf(job.machine, groundOf(job, setup, partModel), paths);
  const mm = (value: number) => formatLength(Math.round(value), job.unit);
  const field = (label: string, key: 'x' | 'y') => (
    <LengthField
      label={label}
      value={{ x, y }[key]}
      unit={job.unit}
      min={-10000}
      max={10000}
      testID={`on-table-${key}`}
      onChange={(v) => set({ onTable: { x, y, [key]: v } }, `on-table-${key}`)}
    />
  );
  return (
    <Card testID="place">
      <Txt heading kind="large">
        On the table
      </Txt>
      {reach ? (
        <Txt testID="reach">{reachText(reach, job.unit)}</Txt>
      ) : (
        <Txt kind="small" tone="quiet">
          What is left of the machine’s travel is said once there is a path.
        </Txt>
      )}
      {reach && isBetter(reach, setup) && (
        <Button
          mode="outlined"
          testID="best-place"
          style={{ alignSelf: 'flex-start' }}
          onPress={() => set({ onTable: { x: Math.round(reach.best.x), y: Math.round(reach.best.y) } })}
        >
          Take the best place
        </Button>
      )}
      <Fold label="Where it stands, and each tool" testID="place-more">
        {() => (
          <>
            <Fields>
              {field('Right of the middle', 'x')}
              {field('Behind the middle', 'y')}
            </Fields>
            {reach?.tools.map(({ tool, down, up }) => (
              <Txt key={tool.id} kind="small">
                T{tool.number} {tool.name}: {down < 0 ? `▲ ${mm(-down)} short downwards` : `${mm(down)} left downwards`}
                , {up < 0 ? `▲ ${mm(-up)} short upwards` : `${mm(up)} upwards`}
              </Txt>
            ))}
          </>
        )}
      </Fold>
    </Card>
  );
}
