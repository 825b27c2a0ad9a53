import { Pressable, View } from 'react-native';
import { LengthUnit, Tool, formatLength } from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';
import { ToolDrawing } from './ToolDrawing';

interface Props {
  tool: Tool;
  unit: LengthUnit;
  chosen?: boolean;
  onPress?: () => void;
}

/** A tool in a list: number, name, what it reaches, drawn to scale. */
export function ToolLine({ tool, unit, chosen, onPress }: Props) {
  const palette = usePalette();
  const body = (
    <>
      <View aria-hidden>
        <ToolDrawing tool={tool} width={36} height={64} />
      </View>
      <View style={{ flex: 1, minWidth: 0 }}>
        <Txt bold>
          T{tool.number} · {tool.name}
        </Txt>
        <Txt kind="small" tone="quiet">
          {tool.kind}, ⌀ {formatLength(tool.diameter, unit)}, flutes {formatLength(tool.fluteLength, unit)}, sticks out{' '}
          {formatLength(tool.stickOut, unit)}, {tool.material === 'hss' ? 'HSS' : tool.material}
        </Txt>
      </View>
    </>
  );
  const style = {
    flexDirection: 'row' as const,
    gap: SPACE.m,
    alignItems: 'center' as const,
    minHeight: SIZE.touch,
    padding: SPACE.s,
    borderRadius: SIZE.radius,
    borderWidth: 1,
    borderColor: chosen ? palette.accent : palette.line,
    backgroundColor: palette.sheet,
  };
  if (!onPress) return <View style={style}>{body}</View>;
  return (
    <Pressable role="button" aria-pressed={chosen} onPress={onPress} style={style}>
      {body}
    </Pressable>
  );
}
