import {
  Job,
  Setup,
  bodiesOf,
  covered,
  gripWords,
  groundOf,
  partModel,
  pressesOnFinished,
  strengthOf,
  strengthWords,
} from '@tidypath/core';
import { Fold } from '../../ui/Fold';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';

type Ground = ReturnType<typeof groundOf>;

/** What of the part stands under something that holds it. */
function Covers({ ground }: { ground: Ground }) {
  const names = covered(ground.work, bodiesOf(ground.held));
  return names.length ? <Txt kind="small">◆ Something that holds covers: {names.join(', ')}.</Txt> : null;
}

/** Whether the grip holds: what it stands, and once the program is proved, the worst that it meets; with the working. */
export function Holds({ job, setup }: { job: Job; setup: Setup }) {
  const { computed } = useJob();
  const { proof, proofFresh } = computed;
  const ground = groundOf(job, setup, partModel);
  const strength = strengthOf(ground.held);
  const [worst] = [...((proofFresh && proof?.grip) || [])].sort((a, b) => a.margin - b.margin);
  const operation = setup.operations.find((o) => o.id === worst?.operation)?.name;
  return (
    <>
      {strength && (
        <>
          {worst && (
            <Txt bold testID="grip-verdict">
              {worst.margin >= 2 ? '✓' : worst.margin >= 1 ? '◆' : '▲'} {gripWords(worst, operation)}
            </Txt>
          )}
          <Txt kind="small">{strengthWords(strength, 0, job.unit)}</Txt>
          <Fold label="Why?" testID="grip-why">
            {() =>
              strength.working.map((line) => (
                <Txt key={line} kind="small">
                  {line}
                </Txt>
              ))
            }
          </Fold>
        </>
      )}
      {pressesOnFinished(ground).map((name) => (
        <Txt key={name} kind="small" testID="on-finished">
          ◆ {name} presses on finished walls: soft jaws cut to them, or something soft between, and no more force than
          it takes.
        </Txt>
      ))}
      <Covers ground={ground} />
    </>
  );
}
