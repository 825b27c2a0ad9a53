import { ProofView, kitOf, kitText, pullLines, runsForBatch } from '@tidypath/core';
import { useJob } from '../../session/JobContext';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';

/** What to pull, preset, load and unload before a setup runs, and which edges to have. */
export function KitCard({ proof }: { proof: Pick<ProofView, 'called' | 'wear'> }) {
  const { job, setup } = useJob();
  const runs = runsForBatch(job, setup);
  const kit = () =>
    kitOf(
      job,
      setup,
      proof.called.map((c) => c.number),
      proof.wear,
    );
  return (
    <Fold label="What to make ready" testID="kit">
      {() => (
        <>
          {pullLines(job, setup).map((line) => (
            <Txt key={line}>{line}</Txt>
          ))}
          {kit().map((k) => (
            <Txt key={k.tool.id}>
              <Txt bold>
                T{k.tool.number} {k.tool.name}
              </Txt>
              : {kitText(k, job.unit)}
            </Txt>
          ))}
          <Txt kind="small" tone="quiet">
            Edges for {runs === 1 ? 'one run' : `${runs} runs`}, from the life on each tool’s card and the load of the
            proof: estimates.
          </Txt>
        </>
      )}
    </Fold>
  );
}
