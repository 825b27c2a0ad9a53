import { useState } from 'react';
import { Button } from 'react-native-paper';
import type { Press } from '@tidypath/controller';
import { LengthUnit, SurfaceView, formatLength, formatThin, sizeVerdict } from '@tidypath/core';
import { ApiError, PieceSeen, api } from '../../api/client';
import { Card, Row } from '../../ui/Card';
import { FindingList } from '../../ui/FindingList';
import { Txt } from '../../ui/Txt';

/** A piece as it was measured last. */
export interface Piece extends PieceSeen {
  run: string;
  /** Program time it was measured at: what was cut since is not in it. */
  at: number;
  failed?: string;
}

/** Height of a piece at a place, mm; undefined beside it. */
export function heightAt({ x0, y0, cell, nx, ny, height }: SurfaceView, x: number, y: number): number | undefined {
  const [i, j] = [Math.floor((x - x0) / cell), Math.floor((y - y0) / cell)];
  return i >= 0 && i < nx && j >= 0 && j < ny ? height[j * nx + i] : undefined;
}

/** Whether a piece is the one that lies there now. */
export const isOf = (piece: Piece | undefined, run: string, ran: number): piece is Piece =>
  piece?.run === run && piece.at === ran;

/** The piece as it lies there: measured, compared, taken off. */
export function PieceCard({
  run,
  ran,
  unit,
  piece,
  touched,
  onPiece,
  press,
}: {
  run: string;
  ran: number;
  unit: LengthUnit;
  piece?: Piece;
  /** Where it was tapped, as it is told. */
  touched?: string;
  onPiece: (piece: Piece) => void;
  press: (one: Press) => void;
}) {
  const [busy, setBusy] = useState(false);
  const measure = async () => {
    setBusy(true);
    try {
      onPiece({ run, at: ran, ...(await api.piece(run)) });
    } catch (error) {
      onPiece({ run, at: ran, sizes: [], findings: [], failed: (error as ApiError).message });
    }
    setBusy(false);
  };
  const known = isOf(piece, run, ran) ? piece : undefined;
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
      {known?.surface && (
        <Txt kind="small" tone="quiet" live testID="touched">
          {touched ?? 'Tap it in the picture for its height there.'}
        </Txt>
      )}
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
