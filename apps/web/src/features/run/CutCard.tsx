import { useState } from 'react';
import { View } from 'react-native';
import type { MachineView } from '@tidypath/controller';
import { CHIP_COLOURS, Tool, formatNumber } from '@tidypath/core';
import { usePalette } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Swatch } from '../../ui/Choices';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';
import { CHIP_SWATCHES } from '../../ui/log/words';
import { heardOf, useSound } from './useSound';
import { heardText } from './words';

/** Height of the bar. */
const BAR = 14;

/** Share of the spindle's power: beyond its end there is more than it gives. */
function LoadBar({ load }: { load: number }) {
  const palette = usePalette();
  const over = load > 1;
  const text = `${formatNumber(100 * load, 0)} %`;
  return (
    <View accessible role="img" aria-label={`Load ${text}`}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Txt>Load</Txt>
        <Txt mono bold tone={over ? 'danger' : 'ink'}>
          {over ? '▲ ' : ''}
          {text}
        </Txt>
      </Row>
      <View style={{ height: BAR, borderRadius: BAR / 2, backgroundColor: palette.sunken, overflow: 'hidden' }}>
        <View
          style={{
            height: BAR,
            width: `${Math.min(100, 100 * load)}%`,
            backgroundColor: over ? palette.danger : palette.accent,
          }}
        />
      </View>
    </View>
  );
}

/** What is seen, heard and felt of the cut. */
export function CutCard({ view, tools }: { view: MachineView; tools: Tool[] }) {
  const [isHeard, setHeard] = useState(false);
  useSound(isHeard, heardOf(view, tools.find((t) => t.number === view.tool)?.flutes ?? 1));
  const { colour, chip, load } = view;
  return (
    <Card testID="cut-seen">
      <LoadBar load={load} />
      <Txt tone={view.chatter === undefined ? 'ink' : 'danger'}>{heardText(view)}</Txt>
      <Row>
        {colour && <Swatch colour={CHIP_SWATCHES[colour]} />}
        <Txt>
          {chip && load > 0
            ? `${chip.shape === 'chips' ? 'Chips' : chip.shape} ${colour ? CHIP_COLOURS[colour] : ''}, ${formatNumber(chip.thick, 2)} × ${formatNumber(chip.long, 1)} × ${formatNumber(chip.wide, 1)} mm`
            : 'No chips'}
        </Txt>
      </Row>
      <Tick label="Let it be heard" on={isHeard} onPress={() => setHeard(!isHeard)} />
    </Card>
  );
}
