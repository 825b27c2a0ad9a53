import { Linking } from 'react-native';
import { Button } from 'react-native-paper';
import { ReleaseView, limitsText, sizeVerdict, sizesToMeasure } from '@tidypath/core';
import { api } from '../../api/client';
import { Card, Row } from '../../ui/Card';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';

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
      {sizes.map((size) => {
        const found = last(size.id);
        const verdict = found && sizeVerdict(size, found.measured, job.unit);
        return (
          <Row key={size.id}>
            <LengthField
              label={`${size.feature}, ${size.size} ${limitsText(size.limits, job.unit)}`}
              value={found?.measured ?? size.mm}
              unit={job.unit}
              onChange={(mm) => void api.measure(view.id, size.id, mm).then(onMeasured)}
            />
            <Txt tone={verdict && !verdict.ok ? 'danger' : 'quiet'} live>
              {verdict ? `${verdict.ok ? '✓' : '▲'} ${verdict.words}` : 'not measured yet'}
            </Txt>
          </Row>
        );
      })}
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
