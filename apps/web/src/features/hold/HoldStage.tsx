import { useState } from 'react';
import { CONTROLLERS, Job, Setup, withController, withSetup } from '@tidypath/core';
import { HardnessField } from '../../ui/cutting/HardnessField';
import { useShop } from '../../ui/cutting/useShop';
import { Card } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';
import { SpeedsSheet, departingOf } from '../../session/SpeedsSheet';
import { StagePage } from '../../session/StagePage';
import { JobView } from '../../scene/JobView';
import { BatchCard } from './BatchCard';
import { CopiesCard } from './CopiesCard';
import { HoldingCard } from './HoldingCard';
import { PlaceCard } from './PlaceCard';
import { SetupCard } from './SetupCard';
import { StationsCard } from './StationsCard';
import { StockCard } from './StockCard';
import { ZeroCard } from './ZeroCard';

/** What the shop has, and the job's own where the shop no longer has it. */
const withOwn = <T extends { id: string }>(items: T[], own: T): T[] =>
  items.some((i) => i.id === own.id) ? items : [own, ...items];

const copy = <T,>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** How the work is held: material, machine, stock, zero, clearance, jaws and clamps. */
export function HoldStage() {
  const { job, setup, edit } = useJob();
  const shop = useShop();
  const materials = withOwn(shop.materials, job.material);
  const controllers = shop.controllers.length ? shop.controllers : CONTROLLERS;
  const machines = withOwn(shop.machines, job.machine);
  const set = (more: Partial<Setup>, tag = '') =>
    edit((j) => withSetup(j, { ...j.setups.find((s) => s.id === setup.id)!, ...more }), tag);
  const [asksSpeeds, setAsksSpeeds] = useState(false);
  /** Another material or machine: what speeds would be suggested then is shown beside those that are kept. */
  const change = (next: (j: Job) => Job) => {
    edit(next);
    setAsksSpeeds(departingOf(next(job)).length > 0);
  };
  /** The grip that is shown: the step that makes it, none for that at the start. */
  const [grip, setGrip] = useState<string>();

  return (
    <StagePage view={<JobView stock="raw" showPath={false} heldAfter={grip} />}>
      <SetupCard set={set} />
      <Card>
        <Txt heading kind="large">
          Material and machine
        </Txt>
        <Choices
          label="Material"
          value={job.material.id}
          onChange={(id) => change((j) => ({ ...j, material: copy(materials.find((m) => m.id === id)!) }))}
          options={materials.map((m) => ({ value: m.id, label: m.name }))}
        />
        <HardnessField
          material={job.material}
          onChange={(hb) => edit((j) => ({ ...j, material: { ...j.material, atHand: hb } }), 'hardness')}
        />
        {job.material.caution && <Txt kind="small">◆ {job.material.caution}</Txt>}
        <Choices
          label="Machine"
          value={job.machine.id}
          onChange={(id) =>
            change((j) => {
              const machine = copy(machines.find((m) => m.id === id)!);
              const controller = controllers.find((c) => c.id === machine.controllerId);
              const next = { ...j, machine };
              return controller ? withController(next, controller) : next;
            })
          }
          options={machines.map((m) => ({ value: m.id, label: m.name }))}
        />
        <Choices
          label="Controller"
          value={job.controllerId}
          onChange={(id) =>
            edit((j) =>
              withController(
                j,
                controllers.find((c) => c.id === id)!,
              ),
            )
          }
          options={controllers.map((c) => ({ value: c.id, label: c.name }))}
        />
      </Card>
      {asksSpeeds && (
        <SpeedsSheet departing={departingOf(job)} job={job} edit={edit} onClose={() => setAsksSpeeds(false)} />
      )}
      <StockCard setup={setup} set={set} />
      <CopiesCard set={set} />
      <StationsCard set={set} />
      <BatchCard set={set} />
      <ZeroCard set={set} />
      <HoldingCard
        grip={grip}
        onGrip={setGrip}
        setGrip={(next) => change((j) => withSetup(j, { ...j.setups.find((s) => s.id === setup.id)!, grip: next }))}
      />
      <PlaceCard set={set} />
    </StagePage>
  );
}
