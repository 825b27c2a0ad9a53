import { useState } from 'react';
import { Linking } from 'react-native';
import { Button } from 'react-native-paper';
import { LengthUnit, ReleaseView, SizeToMeasure, limitsText, sizeVerdict, sizesToMeasure } from '@tidypath/core';
import { api } from '../../api/client';
import { Card, Row } from '../../ui/Card';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';

/** One size: typed as it was measured, kept when that is said. */
function Size({
  size,
  measured,
  unit,
  onKeep,
}: {
  size: SizeToMeasure;
  measured?: number;
  unit: LengthUnit;
  onKeep: (mm: number) => void;
}) {
  const [typed, setTyped] = useState(measured ?? size.mm);
  const verdict = measured === undefined ? undefined : sizeVerdict(size, measured, unit);
  return (
    <Row>
      <LengthField
        label={`${size.feature}, ${size.size} ${limitsText(size.limits, unit)}`}
        value={typed}
        unit={unit}
        onChange={setTyped}
      />
      <Button compact mode="outlined" onPress={() => onKeep(typed)}>
        Measured
      </Button>
      <Txt tone={verdict && !verdict.ok ? 'danger' : 'quiet'} live>
        {verdict ? `${verdict.ok ? '✓' : '▲'} ${verdict.words}` : 'not measured yet'}
      </Txt>
    </Row>
  );
}

/** Sizes of the first piece as they are measured, against their limits. */
export function FirstPieceCard({ view, onMeasured }: { view: ReleaseView; onMeasured: () => void }) {
  const { job, setupId } = view.body;
  const setup = job.setups.find((s) => s.id === setupId);
  const sizes = setup ? sizesToMeasure(job, setup) : [];
  if (sizes.length === 0) return null;
  const last = (id: string) => view.sizes.filter((s) => s.size === id).pop();
  return (
    <Card testID="first-piece">
      <Txt heading bold>
        First piece
      </Txt>
      {sizes.map((size) => (
        <Size
          key={size.id}
          size={size}
          measured={last(size.id)?.measured}
          unit={job.unit}
          onKeep={(mm) => void api.measure(view.id, size.id, mm).then(onMeasured)}
        />
      ))}
      <Row>
        <Button compact onPress={() => void Linking.openURL(api.paperOf(view.id, 'first-piece.html'))}>
          First-piece report
        </Button>
        <Button compact onPress={() => void Linking.openURL(api.paperOf(view.id, 'first-piece-A4.pdf'))}>
          PDF, A4
        </Button>
      </Row>
    </Card>
  );
}
