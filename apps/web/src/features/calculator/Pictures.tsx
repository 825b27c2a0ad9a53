import { memo, useState } from 'react';
import {
  formatLength,
  formatNumber,
  formOf,
  isAxial,
  suggestEntry,
  suggestFinish,
  suggestPeck,
  thin,
} from '@tidypath/core';
import { Card } from '../../ui/Card';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';
import { BiteCharts } from '../../ui/cutting/BiteCharts';
import { BitePicture } from '../../ui/cutting/BitePicture';
import { PowerCurve } from '../../ui/PowerCurve';
import type { Found } from './useCalculator';

/** How to go in and how to finish, for the tool at hand. */
function Habits({ found, depth, onDepth }: { found: Found; depth: number; onDepth: (mm: number) => void }) {
  const { tool, material } = found.situation;
  if (formOf(tool) === 'drill') {
    const peck = suggestPeck(tool.diameter, depth, material.longChips, tool.throughCoolant);
    return (
      <>
        <LengthField label="Hole depth" unit="mm" value={depth} min={0.1} max={2000} onChange={onDepth} />
        <Txt>
          {peck.method === 'straight'
            ? 'Straight down'
            : peck.method === 'peck'
              ? `Pecks of ${formatLength(peck.peck, 'mm')}, out each time`
              : `Break the chip every ${formatLength(peck.peck, 'mm')}`}
          : {peck.reason}.
        </Txt>
      </>
    );
  }
  if (isAxial(tool)) return null;
  const entry = suggestEntry(tool, material, found.situation.boldness);
  const finish = suggestFinish(tool);
  return (
    <>
      <Txt>
        Enter by a helix of {formatLength(entry.diameter, 'mm')} at {formatNumber(entry.angle, 1)}°: {entry.reason}.
      </Txt>
      <Txt>
        For a finish leave {formatLength(finish.allowance, 'mm')} and feed up to {thin(finish.chipLoad, 'mm')} a tooth:
        marks stay below {thin(finish.marks, 'mm')}.
      </Txt>
    </>
  );
}

/** The cut drawn, how to enter and finish, and the curves that decide something. Follows once the typing rests. */
export const Pictures = memo(function Pictures({ found }: { found: Found }) {
  const [depth, setDepth] = useState(20);
  const { tool, material, machine, ae, ap } = found.situation;
  const axial = isAxial(tool);
  return (
    <>
      {!axial && (
        <Card>
          <BitePicture tool={tool} state={found.state} ae={ae} ap={ap} unit="mm" />
        </Card>
      )}
      <Card>
        <Habits found={found} depth={depth} onDepth={setDepth} />
        {material.chips !== '' && <Txt kind="small">Good chips: {material.chips}</Txt>}
        {material.caution && <Txt kind="small">◆ {material.caution}</Txt>}
      </Card>
      <Card>
        <PowerCurve machine={machine} here={{ rpm: found.suggestion.rpm, kW: found.state.power }} />
        {!axial && (
          <BiteCharts situation={found.situation} rpm={found.suggestion.rpm} feed={found.suggestion.feed} unit="mm" />
        )}
      </Card>
    </>
  );
});
