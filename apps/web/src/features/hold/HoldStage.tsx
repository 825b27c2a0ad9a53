import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import {
  CONTROLLERS,
  Fixture,
  GRIPS,
  Job,
  Setup,
  ZERO_POINTS,
  clampBeside,
  groundOf,
  jawsFor,
  withController,
  withSetup,
  partModel,
} from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { HardnessField } from '../../ui/cutting/HardnessField';
import { GRIP_WORDS } from '../../ui/cutting/words';
import { useShop } from '../../ui/cutting/useShop';
import { Card, Fields, Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';
import { SpeedsSheet, departingOf } from '../../session/SpeedsSheet';
import { StagePage } from '../../session/StagePage';
import { JobView } from '../../scene/JobView';
import { SetupCard } from './SetupCard';
import { StockCard } from './StockCard';

const WORK_OFFSETS = ['G54', 'G55', 'G56', 'G57', 'G58', 'G59'] as const;
/** What the shop has, and the job's own where the shop no longer has it. */
const withOwn = <T extends { id: string }>(items: T[], own: T): T[] =>
  items.some((i) => i.id === own.id) ? items : [own, ...items];

const copy = <T,>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** One clamp or jaw by its corner and size. */
function FixtureCard({
  fixture,
  onChange,
  onDelete,
}: {
  fixture: Fixture;
  onChange: (f: Fixture) => void;
  onDelete: () => void;
}) {
  const { job } = useJob();
  const field = (label: string, key: 'x' | 'y' | 'z' | 'width' | 'depth' | 'height') => (
    <LengthField
      key={key}
      label={label}
      value={fixture[key]}
      unit={job.unit}
      min={key === 'x' || key === 'y' || key === 'z' ? undefined : 0.1}
      onChange={(mm) => onChange({ ...fixture, [key]: mm })}
    />
  );
  return (
    <Card>
      <TextInput
        mode="outlined"
        dense
        label="Name"
        aria-label="Fixture name"
        value={fixture.name}
        onChangeText={(name) => name.trim() && onChange({ ...fixture, name: name.slice(0, 80) })}
      />
      <Fields>{[field('Left X', 'x'), field('Front Y', 'y'), field('Underside Z', 'z')]}</Fields>
      <Fields>{[field('Size X', 'width'), field('Size Y', 'depth'), field('Size Z', 'height')]}</Fields>
      <Button compact onPress={onDelete} style={{ alignSelf: 'flex-start' }}>
        Take it off
      </Button>
    </Card>
  );
}

/** How the work is held: material, machine, stock, zero, clearance, jaws and clamps. */
export function HoldStage() {
  const { job, setup, edit } = useJob();
  const { unit } = job;
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
  const { stock } = groundOf(job, setup, partModel);
  const addClamp = () => set({ fixtures: [...setup.fixtures, clampBeside(stock, setup.fixtures)] });
  const setFixture = (next: Fixture) =>
    set({ fixtures: setup.fixtures.map((f) => (f.id === next.id ? next : f)) }, `fixture-${next.id}`);

  return (
    <StagePage view={<JobView stock="raw" showPath={false} />}>
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
      <Card>
        <Txt heading kind="large">
          Zero
        </Txt>
        <Choices
          label="On the"
          value={setup.zero.on}
          onChange={(on) => set({ zero: { ...setup.zero, on } })}
          options={plainOptions(['stock', 'part'] as const)}
        />
        <Choices
          label="At the"
          value={setup.zero.point}
          onChange={(point) => set({ zero: { ...setup.zero, point } })}
          options={plainOptions(ZERO_POINTS)}
        />
        <Choices
          label="Height"
          value={setup.zero.height}
          onChange={(height) => set({ zero: { ...setup.zero, height } })}
          options={plainOptions(['top', 'bottom'] as const)}
        />
        <Choices
          label="Work offset"
          value={setup.workOffset as (typeof WORK_OFFSETS)[number]}
          onChange={(workOffset) => set({ workOffset })}
          options={plainOptions(WORK_OFFSETS)}
        />
        <Fields>
          <LengthField
            label="Clearance above the stock"
            value={setup.clearance}
            unit={unit}
            min={0.5}
            max={500}
            onChange={(clearance) => set({ clearance }, 'clearance')}
          />
          <LengthField
            label="Stock above the table"
            value={setup.riser}
            unit={unit}
            min={0}
            max={2000}
            onChange={(riser) => set({ riser }, 'riser')}
          />
        </Fields>
      </Card>
      <View style={{ gap: SPACE.m }}>
        <Txt heading kind="large">
          Holding
        </Txt>
        <Choices
          label="The work is held"
          value={setup.grip ?? 'fair'}
          onChange={(grip) => change((j) => withSetup(j, { ...j.setups.find((s) => s.id === setup.id)!, grip }))}
          options={GRIPS.map((grip) => ({ value: grip, label: GRIP_WORDS[grip] }))}
        />
        <Txt kind="small" tone="quiet">
          Jaws and clamps are things to hit; the proof looks out for them.
        </Txt>
        <Row>
          <Button mode="outlined" onPress={() => set({ fixtures: jawsFor(job, setup) })}>
            Vise jaws
          </Button>
          <Button mode="outlined" onPress={addClamp}>
            Add a clamp
          </Button>
        </Row>
        {setup.fixtures.map((f) => (
          <FixtureCard
            key={f.id}
            fixture={f}
            onChange={setFixture}
            onDelete={() => set({ fixtures: setup.fixtures.filter((x) => x.id !== f.id) })}
          />
        ))}
      </View>
    </StagePage>
  );
}
