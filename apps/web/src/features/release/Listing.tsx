import { useEffect, useRef } from 'react';
import { Pressable, VirtualizedList } from 'react-native';
import { Lines } from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

const ROW = 26;
/** Width of a digit of the line numbers, and room for a mark. */
const DIGIT = 9;
const MARK = 18;

/** The program's lines; the one under way is marked, a tap goes to its place. */
export function Listing({
  lines,
  now,
  faulty,
  onLine,
}: {
  lines: Lines;
  now: number | undefined;
  faulty: Set<number>;
  onLine: (line: number) => void;
}) {
  const palette = usePalette();
  const list = useRef<VirtualizedList<string>>(null);
  const numbers = MARK + DIGIT * String(lines.count).length;
  useEffect(() => {
    if (now && now <= lines.count) list.current?.scrollToIndex({ index: now - 1, viewPosition: 0.5, animated: false });
  }, [now, lines]);
  return (
    <VirtualizedList<string>
      ref={list}
      data={lines}
      getItemCount={(all: Lines) => all.count}
      getItem={(all: Lines, i) => all.at(i)}
      testID="listing"
      style={{
        height: 360,
        borderWidth: 1,
        borderColor: palette.line,
        borderRadius: SIZE.radius,
        backgroundColor: palette.sheet,
      }}
      keyExtractor={(_, i) => String(i)}
      getItemLayout={(_, index) => ({ length: ROW, offset: ROW * index, index })}
      initialNumToRender={30}
      renderItem={({ item, index }) => {
        const line = index + 1;
        return (
          <Pressable
            role="button"
            onPress={() => onLine(line)}
            style={{
              height: ROW,
              flexDirection: 'row',
              gap: SPACE.s,
              paddingHorizontal: SPACE.s,
              alignItems: 'center',
              backgroundColor:
                line === now ? palette.accentSoft : faulty.has(line) ? palette.dangerSoft : 'transparent',
            }}
          >
            <Txt mono kind="small" tone="quiet" style={{ width: numbers, textAlign: 'right' }}>
              {faulty.has(line) ? '▲ ' : ''}
              {line}
            </Txt>
            <Txt mono kind="small" lines={1}>
              {item}
            </Txt>
          </Pressable>
        );
      }}
    />
  );
}
