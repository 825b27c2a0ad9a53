import { Button } from 'react-native-paper';
import { ProofView, kitOf, kitText, numberedByPockets, pullLines, runsForBatch } from '@tidypath/core';
import { useJob } from '../../session/JobContext';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';

/** What to pull, preset, load and unload before a setup runs, and which edges to have. */
export function KitCard({ proof }: { proof: Pick<ProofView, 'called' | 'wear'> }) {
  const { job, setup, edit } = useJob();
  const isHigh = job.tools.some((t) => t.number > job.machine.toolPockets);
  const fits = numberedByPockets(job) !== job;
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
          {isHigh && fits && job.machine.toolPockets > 1 && (
            <Button
              mode="outlined"
              testID="number-by-pockets"
              style={{ alignSelf: 'flex-start' }}
              onPress={() => edit(numberedByPockets)}
            >
              Number them by its pockets
            </Button>
          )}
          <Txt kind="small" tone="quiet">
            Edges for {runs === 1 ? 'one run' : `${runs} runs`}, from the life on each tool’s card and the load of the
            proof: estimates.
          </Txt>
        </>
      )}
    </Fold>
  );
}
