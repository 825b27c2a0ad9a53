import { memo } from 'react';
import type { Finding, Measure, WrongPlace, ProofView } from '@tidypath/core';
import { FindingList } from '../../ui/FindingList';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';
import { CompareCard } from './CompareCard';
import { LevelCard } from './LevelCard';
import { CalledTools } from './OtherProgram';
import { PeaksCard } from './PeaksCard';
import { PlacesCard } from './PlacesCard';
import { StepsCard } from './StepsCard';
import { TimeCard } from './TimeCard';
import { startOf, within } from './moments';

const GRAVITY = { stop: 0, care: 1, note: 2 };
const gravestFirst = (findings: Finding[]) => [...findings].sort((a, b) => GRAVITY[a.level] - GRAVITY[b.level]);

function Verdict({ proof }: { proof: ProofView }) {
  const stops = proof.findings.filter((f) => f.level === 'stop').length;
  return (
    <Txt kind="large" bold tone={stops ? 'danger' : 'ink'} testID="verdict">
      {stops
        ? `▲ ${stops} ${stops === 1 ? 'thing stops' : 'things stop'} this program`
        : '✓ Nothing stops this program'}
    </Txt>
  );
}

interface Props {
  proof: ProofView;
  fileName: string;
  measure: Measure;
  onMeasure: (measure: Measure) => void;
  onFinding: (finding: Finding) => void;
  onSeek: (time: number) => void;
  onPlace: (place: WrongPlace) => void;
  onReport: () => Promise<void>;
}

/** All that is known of a proof; drawn anew when the proof changes, not while it plays. */
export const ProofCards = memo(function ProofCards({
  proof,
  fileName,
  measure,
  onMeasure,
  onFinding,
  onSeek,
  onPlace,
  onReport,
}: Props) {
  const { job, setup, computed } = useJob();
  const { unit } = job;
  const { plan, proofFresh } = computed;
  return (
    <>
      <Verdict proof={proof} />
      <CalledTools called={proof.called} />
      <FindingList
        findings={gravestFirst(proof.findings)}
        goTo={(f) => (f.place.at || f.place.line ? () => onFinding(f) : undefined)}
        goLabel="Show"
      />
      <TimeCard proof={proof} onReport={() => void onReport()} />
      {proof.allowed && plan && <PlacesCard places={proof.places} zero={plan.zero} unit={unit} onPlace={onPlace} />}
      <PeaksCard
        measure={measure}
        onMeasure={onMeasure}
        peaks={proof.peaks[measure]}
        unit={unit}
        lines={proof.lines}
        onPeak={(peak) => onSeek(within(peak.time))}
      />
      <StepsCard
        steps={proof.steps}
        operations={setup.operations}
        unit={unit}
        onStep={(s) => onSeek(startOf(proof, s.motion))}
      />
      {proofFresh && <LevelCard proof={proof} measure={measure} unit={unit} fileName={fileName} />}
      {proofFresh && (
        <CompareCard proof={proof} name={fileName} operations={setup.operations} measure={measure} unit={unit} />
      )}
    </>
  );
});
