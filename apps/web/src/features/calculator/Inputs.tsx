import { memo } from 'react';
import { Button } from 'react-native-paper';
import { GRIPS, Machine, Material, Tool, WorkGrip, formatLength, isAxial, isBeam } from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { BoldnessSlide } from '../../ui/cutting/BoldnessSlide';
import { FeedField, SpeedField } from '../../ui/cutting/SpeedField';
import { HardnessField } from '../../ui/cutting/HardnessField';
import { GRIP_WORDS } from '../../ui/cutting/words';
import { useShop } from '../../ui/cutting/useShop';
import { Found, Told, coolantIn, coolantsAt } from './useCalculator';

type Tell = (more: Partial<Told>) => void;

const named = (items: { id: string; name: string }[]) => items.map((i) => ({ value: i.id, label: i.name }));

/** What is cut, with what, on what. Stays as it is while numbers are typed. */
const Subjects = memo(function Subjects(props: { tool: Tool; material: Material; machine: Machine; tell: Tell }) {
  const { tool, material, machine, tell } = props;
  const { tools, machines, materials } = useShop();
  return (
    <>
      <Choices
        fold
        label="Material"
        value={material.id}
        options={named(materials)}
        onChange={(materialId) => tell({ materialId, hardness: 0 })}
      />
      <Choices
        fold
        label="Tool"
        value={tool.id}
        options={tools.filter((t) => !isBeam(t)).map((t) => ({ value: t.id, label: `T${t.number} ${t.name}` }))}
        onChange={(toolId) => tell({ toolId, ae: 0, ap: 0 })}
      />
      <Choices
        fold
        label="Machine"
        value={machine.id}
        options={named(machines)}
        onChange={(machineId) => tell({ machineId })}
      />
    </>
  );
});

interface BiteProps {
  which: 'ae' | 'ap';
  value: number;
  most: number;
  diameter: number;
  tell: Tell;
}

const BiteField = memo(function BiteField({ which, value, most, diameter, tell }: BiteProps) {
  return (
    <LengthField
      label={which === 'ae' ? 'Bite' : 'Layer'}
      testID={`calc-${which}`}
      unit="mm"
      value={value}
      min={0.001}
      max={most}
      shareOf={diameter}
      onChange={(mm) => tell({ [which]: mm })}
    />
  );
});

const TakeProposed = memo(function TakeProposed({ ae, ap, tell }: { ae: number; ap: number; tell: Tell }) {
  return (
    <Button compact style={{ alignSelf: 'flex-start' }} onPress={() => tell({ ae: 0, ap: 0 })}>
      Take {formatLength(ae, 'mm')} and {formatLength(ap, 'mm')}
    </Button>
  );
});

interface GivenProps {
  tool: Tool;
  /** Speed a feed a turn or a tooth is meant at, rpm. */
  at: number;
  rpm: number;
  feed: number;
  tell: Tell;
}

/** A speed or feed somebody gave, in whatever form. */
const Given = memo(function Given({ tool, at, rpm, feed, tell }: GivenProps) {
  const turning = { diameter: tool.diameter, flutes: tool.flutes, rpm: at };
  return (
    <>
      <SpeedField
        label="Speed I was told"
        none="0 for none"
        value={rpm}
        min={0}
        max={200000}
        turning={turning}
        unit="mm"
        onChange={(v) => tell({ rpm: v })}
      />
      <FeedField
        label="Feed at most"
        none="0 for none"
        value={feed}
        min={0}
        max={200000}
        turning={turning}
        unit="mm"
        onChange={(v) => tell({ feed: v })}
      />
    </>
  );
});

const Boldness = memo(function Boldness({ value, tell }: { value: number; tell: Tell }) {
  return <BoldnessSlide value={value} onChange={(boldness) => tell({ boldness })} />;
});

interface WorkProps {
  material: Material;
  grip: WorkGrip;
  tell: Tell;
}

/** The bar at hand, and how firmly it is held. */
const Work = memo(function Work({ material, grip, tell }: WorkProps) {
  return (
    <>
      <HardnessField material={material} onChange={(hardness) => tell({ hardness })} />
      <Choices
        label="The work is held"
        value={grip}
        options={GRIPS.map((g) => ({ value: g, label: GRIP_WORDS[g] }))}
        onChange={(g) => tell({ grip: g })}
      />
    </>
  );
});

const CoolantChoice = memo(function CoolantChoice(props: { machine: Machine; coolant: Told['coolant']; tell: Tell }) {
  const { machine, coolant, tell } = props;
  return (
    <Choices
      label="Coolant"
      value={coolantIn({ coolant }, machine) ?? ''}
      options={[{ value: '' as const, label: 'as the material wants' }, ...plainOptions(coolantsAt(machine))]}
      onChange={(chosen) => tell({ coolant: chosen })}
    />
  );
});

/** Everything that goes in. */
export function Inputs({ found, told, tell }: { found: Found; told: Told; tell: Tell }) {
  const { tool, material, machine, ae, ap } = found.situation;
  const axial = isAxial(tool);
  return (
    <Card>
      <Subjects tool={tool} material={material} machine={machine} tell={tell} />
      {!axial && (
        <Fields>
          <BiteField which="ae" value={ae} most={tool.diameter} diameter={tool.diameter} tell={tell} />
          <BiteField which="ap" value={ap} most={tool.fluteLength} diameter={tool.diameter} tell={tell} />
        </Fields>
      )}
      {!axial && (told.ae > 0 || told.ap > 0) && <TakeProposed ae={found.bite.ae} ap={found.bite.ap} tell={tell} />}
      <Work material={material} grip={told.grip} tell={tell} />
      <CoolantChoice machine={machine} coolant={told.coolant} tell={tell} />
      <Boldness value={told.boldness} tell={tell} />
      <Given tool={tool} at={found.suggestion.rpm} rpm={told.rpm} feed={told.feed} tell={tell} />
    </Card>
  );
}
