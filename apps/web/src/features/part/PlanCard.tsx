import { useCallback, useEffect, useState } from 'react';
import { Button, ProgressBar } from 'react-native-paper';
import { PlannedPart } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { engine } from '../../compute/engine';
import { useJob } from '../../session/JobContext';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

/** What a plan says, as it was taken. */
type Said = Pick<PlannedPart, 'sentences' | 'missing'>;

/** A plan of the part: asked for, under way, or as it was taken. */
export interface Planning {
  at?: string;
  said?: Said;
  failed: string;
  plan: () => void;
  leave: () => void;
}

/**
 * Plans the whole part beside the page; what comes is taken at once, and can be undone.
 * @param asked whether it is to begin, once the shelves are there
 * @param onBegun called when it does
 */
export function usePlan(asked: boolean, onBegun: () => void): Planning {
  const { job, edit } = useJob();
  const { items: rack, loading: noRack } = useShelf('tools');
  const { items: bars, loading: noBars } = useShelf('bars');
  const [at, setAt] = useState<string>();
  const [said, setSaid] = useState<Said>();
  const [failed, setFailed] = useState('');
  const plan = useCallback(async () => {
    setFailed('');
    setAt('the grips');
    try {
      const planned = await engine.planPart(job, bars, rack, setAt);
      if (!planned) return;
      // What was changed meanwhile stays; setups, tools and blank are the plan’s.
      edit((j) => ({ ...j, setups: planned.job.setups, tools: planned.job.tools }));
      setSaid({ sentences: planned.sentences, missing: planned.missing });
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error));
    } finally {
      setAt(undefined);
    }
  }, [job, bars, rack, edit]);
  useEffect(() => {
    if (!asked || noRack || noBars) return;
    onBegun();
    // Not within this turn: the page shows the solid first.
    setTimeout(() => void plan(), 0);
  }, [asked, noRack, noBars, onBegun, plan]);
  return { at, said, failed, plan: () => void plan(), leave: () => engine.leavePlan() };
}

/** Plans the part almost by itself: grips, blank, tools and routes, told in sentences, with what it found no way for. */
export function PlanCard({ at, said, failed, plan, leave }: Planning) {
  const { job } = useJob();
  const operations = job.setups.reduce((sum, s) => sum + s.operations.length, 0);
  return (
    <Card>
      {said ? (
        <>
          <Txt bold testID="plan-said">
            The plan
          </Txt>
          {said.sentences.map((s) => (
            <Txt key={s}>{s}</Txt>
          ))}
          {said.missing.length > 0 && <Txt bold>What it found no way for, or what still stands against it</Txt>}
          {said.missing.map((m, i) => (
            <Txt key={i}>
              {m.feature}: {m.why}
            </Txt>
          ))}
        </>
      ) : (
        <Txt kind="small" tone="quiet">
          Fewest grips, the blank of the shelf that costs least with what is cut away, tools of the rack and a route for
          each grip: tried, proved, and told with what it found no way for.{' '}
          {operations > 0 ? 'It takes the place of today’s setups.' : ''}
        </Txt>
      )}
      {!!failed && <Txt tone="danger">▲ It could not be planned: {failed}</Txt>}
      {at ? (
        <>
          <Txt live>Planning {at} …</Txt>
          <ProgressBar indeterminate />
          <Button compact onPress={leave} style={{ alignSelf: 'flex-start' }}>
            Leave it
          </Button>
        </>
      ) : (
        <Button mode="outlined" onPress={plan} testID="plan-part">
          {said ? 'Plan it again' : 'Plan this part'}
        </Button>
      )}
    </Card>
  );
}
