import { useMemo } from 'react';
import { Button } from 'react-native-paper';
import {
  Setup,
  ZeroPlace,
  groundOf,
  partModel,
  placeOfZero,
  zeroByHand,
  zeroPlaces,
  zeroProgram,
} from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { Fold } from '../../ui/Fold';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';
import { saveFile } from '../../ui/files';
import { useJob } from '../../session/JobContext';
import { ZeroPicture } from './ZeroPicture';

const WORK_OFFSETS = ['G54', 'G55', 'G56', 'G57', 'G58', 'G59'] as const;
/** What a height counts from, by what the zero is on. */
const HEIGHT_WORDS = {
  stock: { top: 'top', bottom: 'underside' },
  part: { top: 'top', bottom: 'underside' },
  holding: { top: 'top of what holds', bottom: 'what the work stands on' },
  feature: { top: 'top of the part', bottom: 'its underside' },
};

const near = (a: ZeroPlace, b: ZeroPlace) => Math.abs(a.at.x - b.at.x) < 1e-6 && Math.abs(a.at.y - b.at.y) < 1e-6;

/** How the zero is found: by hand, or with a probe where the machine has one. */
function FindZero() {
  const { job, setup } = useJob();
  const lines = useMemo(() => zeroByHand(job, setup), [job, setup]);
  const program = useMemo(() => zeroProgram(job, setup), [job, setup]);
  if (lines.length === 0) return null;
  return (
    <Fold label="How it is found" testID="find-zero">
      {() => (
        <>
          {lines.map((line) => (
            <Txt key={line} kind="small">
              {line}
            </Txt>
          ))}
          {program ? (
            <>
              <Button
                mode="outlined"
                style={{ alignSelf: 'flex-start' }}
                onPress={() => saveFile(program.fileName, program.text, 'text/plain')}
                testID="probe-program"
              >
                Probing program
              </Button>
              <Txt kind="small" tone="quiet">
                It sets {setup.workOffset} by touch, from a zero that was set by hand first. No proof sees it run: keep
                a finger on hold.
              </Txt>
            </>
          ) : (
            <Txt kind="small" tone="quiet">
              A machine whose page names a touch probe gets a program for this, where its control can.
            </Txt>
          )}
        </>
      )}
    </Fold>
  );
}

/** Where the zero of a setup is: picked in the picture. */
export function ZeroCard({ set }: { set: (more: Partial<Setup>, tag?: string) => void }) {
  const { job, setup } = useJob();
  const { zero } = setup;
  const ground = useMemo(() => groundOf(job, setup, partModel), [job, setup]);
  const places = useMemo(
    () =>
      zeroPlaces(
        ground,
        ground.work.features.filter((f) => f.meaning === 'hole' || f.meaning === 'pocket' || f.meaning === 'boss'),
      ),
    [ground],
  );
  const at = placeOfZero(zero, places);
  // Of several in one place, the one it is on, or what stands still.
  const shown = [...(at ? [at] : []), ...places].filter((p, i, all) => all.findIndex((q) => near(p, q)) === i);
  const words = HEIGHT_WORDS[zero.on];
  return (
    <Card>
      <Txt heading kind="large">
        Zero
      </Txt>
      <ZeroPicture
        ground={ground}
        places={shown}
        onPick={(place) => set({ zero: { ...place.zero, height: zero.height } })}
      />
      <Txt kind="small" testID="zero-at">
        {at ? `On ${at.name}` : 'On something that is gone: tap a place'}
      </Txt>
      <Choices
        label="Its height is the"
        value={zero.height}
        onChange={(height) => set({ zero: { ...zero, height } })}
        options={(['top', 'bottom'] as const).map((value) => ({ value, label: words[value] }))}
      />
      <Choices
        label="Work offset"
        value={setup.workOffset as (typeof WORK_OFFSETS)[number]}
        onChange={(workOffset) => set({ workOffset })}
        options={plainOptions(WORK_OFFSETS)}
      />
      <FindZero />
      <Fields>
        <LengthField
          label="Clearance above the stock"
          value={setup.clearance}
          unit={job.unit}
          min={0.5}
          max={500}
          onChange={(clearance) => set({ clearance }, 'clearance')}
        />
        <LengthField
          label="Stock above the table"
          value={setup.riser}
          unit={job.unit}
          min={0}
          max={2000}
          onChange={(riser) => set({ riser }, 'riser')}
        />
      </Fields>
    </Card>
  );
}
