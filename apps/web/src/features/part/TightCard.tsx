import { Pressable, View } from 'react-native';
import useSWR from 'swr';
import { Job, Tight, formatLength, formatNumber, hashOf } from '@tidypath/core';
import { engine } from '../../compute/engine';
import { SIZE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

/** Walls and floors thicker than this are no care, mm. */
const THIN = 3;

/** Where the part is hard on cutters, and on which feature; worked out beside the page. */
function useTight(job: Job): Tight | undefined {
  const { thickness, features } = job.part;
  return useSWR(['tight', hashOf([thickness, features])], () => engine.tight(job), { keepPreviousData: true }).data;
}

/** The tightest corner, the thinnest wall and floor, the deepest reach: what decides the smallest tool and the holding. */
export function TightCard({ job, onShow }: { job: Job; onShow: (feature: string) => void }) {
  const tight = useTight(job);
  const { corner, wall, floor, reach } = tight ?? {};
  const long = (mm: number) => formatLength(mm, job.unit);
  const name = (id: string) => job.part.features.find((f) => f.id === id)?.name ?? '';
  const lines: { text: string; feature?: string }[] = [];
  if (corner)
    lines.push({
      text: `Tightest inside corner: ${corner.radius > 0 ? `radius ${long(corner.radius)}` : 'sharp, no mill makes it'} · ${name(corner.feature)}`,
      feature: corner.feature,
    });
  if (reach)
    lines.push({
      text: `Deepest reach: ${long(reach.depth)} for a mill of at most ${long(reach.diameter)}, ${formatNumber(reach.depth / reach.diameter, reach.depth < reach.diameter ? 2 : 1)} times its diameter · ${name(reach.feature)}`,
      feature: reach.feature,
    });
  if (wall)
    lines.push({
      text: `Thinnest wall: ${long(wall.thickness)}, seen from the ${wall.side}${wall.thickness < THIN ? '; it gives under jaws and cutters' : ''}`,
    });
  if (floor)
    lines.push({
      text: `Thinnest floor: ${long(floor.thickness)} · ${name(floor.feature)}${floor.thickness < THIN ? '; it sings and lifts where nothing is under it' : ''}`,
      feature: floor.feature,
    });
  if (lines.length === 0) return null;
  return (
    <Card>
      <View role="list" testID="tight">
        {lines.map(({ text, feature }) => (
          <View role="listitem" key={text}>
            {feature ? (
              <Pressable
                role="button"
                onPress={() => onShow(feature)}
                style={{ minHeight: SIZE.touch, justifyContent: 'center' }}
              >
                <Txt kind="small">{text}</Txt>
              </Pressable>
            ) : (
              <View style={{ minHeight: SIZE.touch, justifyContent: 'center' }}>
                <Txt kind="small">{text}</Txt>
              </View>
            )}
          </View>
        ))}
      </View>
    </Card>
  );
}
