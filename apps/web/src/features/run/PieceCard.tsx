import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Measured, Press } from '@tidypath/controller';
import { Finding, LengthUnit, formatLength, formatThin, sizeVerdict } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { Card, Row } from '../../ui/Card';
import { FindingList } from '../../ui/FindingList';
import { Txt } from '../../ui/Txt';

interface Piece {
  /** Program time it was measured at: what was cut since is not in it. */
  at: number;
  sizes: Measured[];
  findings: Finding[];
  failed?: string;
}

/** The piece as it lies there: measured, compared, taken off. */
export function PieceCard({
  run,
  ran,
  unit,
  press,
}: {
  run: string;
  ran: number;
  unit: LengthUnit;
  press: (one: Press) => void;
}) {
  const [piece, setPiece] = useState<Piece>();
  const [busy, setBusy] = useState(false);
  const measure = async () => {
    setBusy(true);
    try {
      setPiece({ at: ran, ...(await api.piece(run)) });
    } catch (error) {
      setPiece({ at: ran, sizes: [], findings: [], failed: (error as ApiError).message });
    }
    setBusy(false);
  };
  const known = piece?.at === ran ? piece : undefined;
  return (
    <Card testID="piece">
      <Txt heading bold>
        The piece
      </Txt>
      <Row>
        <Button mode="outlined" loading={busy} disabled={busy} onPress={() => void measure()}>
          Measure it
        </Button>
        <Button compact onPress={() => press({ press: 'new piece' })}>
          Put on a new one
        </Button>
      </Row>
      {known?.failed && <Txt tone="danger">▲ {known.failed}</Txt>}
      {known?.sizes.map(({ size, mm }) => {
        const { ok, words } = sizeVerdict(size, mm, unit);
        return (
          <Txt key={size.id} tone={ok ? 'ink' : 'danger'}>
            {ok ? '✓' : '▲'} {size.feature}, {size.size}: {formatThin(mm, unit, 4)} for {formatLength(size.mm, unit)},{' '}
            {words}
          </Txt>
        );
      })}
      {known && !known.failed && known.findings.length === 0 && (
        <Txt>✓ Nothing is cut that should stand, and nothing is left.</Txt>
      )}
      {known && <FindingList findings={known.findings} goTo={() => undefined} goLabel="" />}
    </Card>
  );
}
