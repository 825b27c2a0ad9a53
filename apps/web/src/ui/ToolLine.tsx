import { Pressable, View } from 'react-native';
import { LengthUnit, Tool, formatLength, kindLabel } from '@tidypath/core';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';
import { ToolDrawing } from './ToolDrawing';

interface Props {
  tool: Tool;
  unit: LengthUnit;
  chosen?: boolean;
  onPress?: () => void;
  /** Why it suits, or what speaks against it. */
  reasons?: string[];
  cautions?: string[];
}

/** A tool in a list: number, name, what it reaches, drawn to scale; where it was asked, why. */
export function ToolLine({ tool, unit, chosen, onPress, reasons = [], cautions = [] }: Props) {
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
          {kindLabel(tool)}, ⌀ {formatLength(tool.diameter, unit)}, flutes {formatLength(tool.fluteLength, unit)},
          sticks out {formatLength(tool.stickOut, unit)}, {tool.material === 'hss' ? 'HSS' : tool.material}
        </Txt>
        {reasons.map((r) => (
          <Txt key={r} kind="small">
            ✓ {r}
          </Txt>
        ))}
        {cautions.map((c) => (
          <Txt key={c} kind="small" tone="care">
            ◆ {c}
          </Txt>
        ))}
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
    <Pressable role="button" aria-pressed={chosen} onPress={onPress} style={style} testID={`tool-${tool.id}`}>
      {body}
    </Pressable>
  );
}
