import { usePathname, useRouter } from 'expo-router';
import { useEffect } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Stage, formatTime } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { useCalmJob } from './JobContext';
import { enter, follow, say, useFollowed, useOthers, useSaying } from './here';
import { STAGE_NAMES } from './stages';

const UNNAMED = 'Another page';

/** Tells the others where this page is, and goes where the one it follows goes. */
function useHere(id: string): void {
  const router = useRouter();
  const stage = usePathname().split('/').at(-1) as Stage;
  const { setup, chooseSetup } = useCalmJob();
  const followed = useFollowed();
  useEffect(() => enter(id), [id]);
  useEffect(() => say({ stage }), [id, stage]);
  useSaying('setupId', setup.id);
  const [goal, side] = [followed?.stage, followed?.setupId];
  useEffect(() => {
    if (goal) router.replace(`/job/${id}/${goal}`);
  }, [goal, id, router]);
  useEffect(() => {
    if (side) chooseSetup(side);
  }, [side, chooseSetup]);
}

/** Who else has the job open, and where; each can be followed. */
export function Others({ id }: { id: string }) {
  const palette = usePalette();
  const { others, following } = useOthers();
  useHere(id);
  if (others.length === 0) return null;
  return (
    <View testID="others" style={{ backgroundColor: palette.accentSoft, paddingHorizontal: SPACE.m }}>
      {others.map(({ page, who, place: { stage, second } }) => {
        const isFollowed = page === following;
        const name = who || UNNAMED;
        return (
          <View key={page} style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
            <Txt kind="small" style={{ flex: 1 }}>
              {isFollowed ? 'Following ' : ''}
              {name}, at {STAGE_NAMES[stage]}
              {second === undefined ? '' : ` ${formatTime(second / 60)}`}
            </Txt>
            <Button
              compact
              accessibilityLabel={isFollowed ? `Leave ${name}` : `Follow ${name}`}
              onPress={() => follow(isFollowed ? undefined : page)}
            >
              {isFollowed ? 'Leave' : 'Follow'}
            </Button>
          </View>
        );
      })}
    </View>
  );
}
