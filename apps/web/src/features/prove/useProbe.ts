import { useCallback, useMemo, useState } from 'react';
import type { Probe, ProofView } from '@tidypath/core';
import { engine } from '../../compute/engine';

export interface Probing {
  /** What stands where the picture was tapped last. */
  probe?: Probe;
  /** The point measured from. */
  from?: Probe;
  /** Probes another point. */
  tap: (at: { x: number; y: number }) => void;
  /** Measures from this point to the next. */
  measure: () => void;
  close: () => void;
  /** Where pins stand in the picture. */
  pins: { x: number; y: number; z: number }[];
}

/** Probing the piece in the picture, point by point. */
export function useProbe(proof: ProofView | undefined): Probing {
  /** Points belong to the proof they were probed in. */
  const [points, setPoints] = useState<{ of?: ProofView; probe?: Probe; from?: Probe }>({});
  const close = useCallback(() => setPoints({}), []);
  const tap = useCallback(
    (at: { x: number; y: number }) => {
      engine
        .probe(at.x, at.y)
        .then(
          (probe) =>
            probe && setPoints(({ of, from }) => ({ of: proof, probe, from: of === proof ? from : undefined })),
        )
        .catch(() => undefined);
    },
    [proof],
  );
  const measure = useCallback(() => setPoints(({ of, probe }) => ({ of, probe, from: probe })), []);
  const { probe, from } = points.of === proof ? points : {};
  const floor = proof?.surface.bottom ?? 0;
  const pins = useMemo(
    () => [from, probe].flatMap((p) => (p ? [{ x: p.x, y: p.y, z: p.z ?? floor }] : [])),
    [from, probe, floor],
  );
  return { probe, from, tap, measure, close, pins };
}
