import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  Setup,
  barWays,
  blankFindings,
  blanksOf,
  blanksText,
  groundOf,
  inUnitOf,
  partModel,
  wayText,
} from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { useJob } from '../../session/JobContext';
import { SPACE } from '../../theme/theme';
import { Row } from '../../ui/Card';
import { FindingCard } from '../../ui/FindingCard';
import { LinkCard } from '../../ui/LinkCard';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

/** So many ways to cut a blank are shown. */
const SHOWN = 8;

/** Which bar of the shop the blanks are sawn off. */
export function BarCard({ setup, set }: { setup: Setup; set: (more: Partial<Setup>) => void }) {
  const { job } = useJob();
  const [choosing, setChoosing] = useState(false);
  const { stock } = setup;
  const blanks = blanksOf(job, setup);
  const findings = inUnitOf(job, blankFindings(job, setup));
  return (
    <View style={{ gap: SPACE.s }}>
      {blanks && <Txt testID="blanks">{blanksText(blanks, job.unit)}.</Txt>}
      {findings.map((f) => (
        <FindingCard key={f.code} finding={f} />
      ))}
      <Row>
        <Button mode="outlined" onPress={() => setChoosing(true)} testID="choose-bar">
          {stock.bar ? 'Another bar' : 'From a bar of the shop'}
        </Button>
        {stock.bar && <Button onPress={() => set({ stock: { ...stock, bar: undefined } })}>Not from a bar</Button>}
      </Row>
      {choosing && (
        <WaysSheet
          setup={setup}
          onClose={() => setChoosing(false)}
          onTake={(next) => {
            set({ stock: next });
            setChoosing(false);
          }}
        />
      )}
    </View>
  );
}

/** Every way to cut the blank from what the shop has, the cheapest first. */
function WaysSheet(props: { setup: Setup; onTake: (stock: Setup['stock']) => void; onClose: () => void }) {
  const { setup, onTake, onClose } = props;
  const { job } = useJob();
  const { items: bars } = useShelf('bars');
  const ground = groundOf(job, { ...setup, lean: undefined }, partModel);
  const ways = barWays(setup.stock, ground.model, bars, job.material);
  return (
    <Sheet title="From a bar of the shop" open onClose={onClose}>
      <Txt kind="small" tone="quiet">
        Ways to saw it off what the shop has of {job.material.name}; what leaves all that was asked round the part
        first, then by price. The saw’s kerf counts.
      </Txt>
      {ways.length === 0 && (
        <Txt testID="no-bar">
          Nothing the shop has of it is large enough. A bar is added under Shop; a smaller one fits where less is left
          round the part.
        </Txt>
      )}
      {ways.slice(0, SHOWN).map((way, i) => (
        <LinkCard
          key={i}
          testID={`bar-way-${i}`}
          title={way.bar.name}
          text={wayText(way, ground, job.unit)}
          onPress={() => onTake(way.stock)}
        />
      ))}
    </Sheet>
  );
}
