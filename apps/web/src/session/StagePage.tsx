import { ReactNode, useEffect, useRef, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { Button } from 'react-native-paper';
import { SIZE, SPACE } from '../theme/theme';
import { scrollable } from '../ui/keys';
import { usePalette, useWide } from '../theme/usePalette';

interface Props {
  view: ReactNode;
  /** Stands under the view: the load ribbon, for instance. */
  under?: ReactNode;
  children: ReactNode;
  /** What one does next, within the thumb's reach. */
  action?: ReactNode;
  /** Whenever this changes, what is below starts again from its top. */
  start?: unknown;
  /** Whenever this changes, something is shown in the view: a phone goes back up to it. */
  look?: unknown;
}

/** Does something when a value changes, not when it is first there. */
function useChange(value: unknown, then: () => void) {
  const known = useRef(value);
  useEffect(() => {
    if (known.current === value) return;
    known.current = value;
    then();
  });
}

/** The shape of every stage: on a phone one column with the view foldable above; wide, the view large at the left. */
export function StagePage({ view, under, children, action, start, look }: Props) {
  const palette = usePalette();
  const wide = useWide();
  const [folded, setFolded] = useState(false);
  const scroll = useRef<ScrollView>(null);
  const toTop = () => scroll.current?.scrollTo({ y: 0, animated: false });
  useChange(start, toTop);
  useChange(look, () => {
    if (wide) return;
    setFolded(false);
    toTop();
  });
  const foot = action && (
    <View style={{ padding: SPACE.m, borderTopWidth: 1, borderColor: palette.line, backgroundColor: palette.sheet }}>
      {action}
    </View>
  );
  if (wide) {
    return (
      <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <View style={{ flex: 1, minHeight: 0 }}>{view}</View>
          {under && <View style={{ borderTopWidth: 1, borderColor: palette.line, padding: SPACE.m }}>{under}</View>}
        </View>
        <View style={{ width: SIZE.panel, borderLeftWidth: 1, borderColor: palette.line }}>
          <ScrollView ref={scroll} {...scrollable} contentContainerStyle={{ padding: SPACE.l, gap: SPACE.m }}>
            {children}
          </ScrollView>
          {foot}
        </View>
      </View>
    );
  }
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <ScrollView ref={scroll} {...scrollable} contentContainerStyle={{ paddingBottom: SPACE.l }}>
        {!folded && <View style={{ height: SIZE.view }}>{view}</View>}
        <Button
          compact
          onPress={() => setFolded(!folded)}
          icon={folded ? 'chevron-down' : 'chevron-up'}
          style={{ alignSelf: 'center' }}
          accessibilityLabel={folded ? 'Show the view' : 'Fold the view away'}
        >
          {folded ? 'view' : 'fold'}
        </Button>
        {under && <View style={{ paddingHorizontal: SPACE.m, paddingBottom: SPACE.m }}>{under}</View>}
        <View style={{ paddingHorizontal: SPACE.m, gap: SPACE.m }}>{children}</View>
      </ScrollView>
      {foot}
    </View>
  );
}
