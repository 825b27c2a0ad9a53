import { View } from 'react-native';
import { Button, IconButton } from 'react-native-paper';
import { AXIS_NAMES, Axis, COOLANTS, Machine, parametersOf, startOf, torqueAt, formatNumber } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { SPACE } from '../../theme/theme';
import { Card, Fields } from '../../ui/Card';
import { LessonsCard } from '../../ui/log/LessonsCard';
import { Choices } from '../../ui/Choices';
import { FieldFinding } from '../../ui/FieldFinding';
import { NumberField } from '../../ui/NumberField';
import { ParameterField } from '../../ui/ParameterField';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';
import { ValueForm } from '../../ui/ValueForm';
import { ItemPage } from '../../shell/ItemPage';
import { Origin } from '../../ui/Origin';
import { PowerCurve } from '../../ui/PowerCurve';
import { useDraft } from '../../shell/useDraft';

const FIELDS = parametersOf(Machine);
const MOST_POINTS = 12;

type Editing = {
  machine: Machine;
  change: (more: Partial<Machine>) => void;
  draft: ReturnType<typeof useDraft<'machines'>>;
};

const under = (draft: Editing['draft'], prefix: string) =>
  draft.findings
    .filter((f) => f.place.field?.startsWith(prefix))
    .map((f) => <FieldFinding key={f.place.field! + f.code} finding={f} />);

function SpindleCard({ machine, change, draft }: Editing) {
  const set = (i: number, more: Partial<Machine['spindle'][number]>) =>
    change({ spindle: machine.spindle.map((p, k) => (k === i ? { ...p, ...more } : p)) });
  const last = machine.spindle[machine.spindle.length - 1];
  return (
    <Card>
      <Txt heading kind="large">
        Power curve
      </Txt>
      <PowerCurve machine={machine} />
      <Txt kind="small" tone="quiet">
        Power rises evenly to the first point and stays level after the last. Torque at the first point:{' '}
        {formatNumber(torqueAt(machine, machine.spindle[0].rpm), 1)} N·m.
      </Txt>
      {machine.spindle.map((p, i) => (
        <View key={i} style={{ flexDirection: 'row', alignItems: 'center' }}>
          <View style={{ flex: 1 }}>
            <Fields>
              <NumberField
                label={`Speed ${i + 1}`}
                suffix="rpm"
                value={p.rpm}
                min={1}
                max={200000}
                onChange={(rpm) => set(i, { rpm })}
              />
              <NumberField
                label={`Power ${i + 1}`}
                suffix="kW"
                value={p.kW}
                min={0.001}
                max={500}
                onChange={(kW) => set(i, { kW })}
              />
            </Fields>
          </View>
          {machine.spindle.length > 1 && (
            <IconButton
              icon="close"
              accessibilityLabel={`Take off point ${i + 1}`}
              onPress={() => change({ spindle: machine.spindle.filter((_, k) => k !== i) })}
            />
          )}
        </View>
      ))}
      {under(draft, 'spindle')}
      {machine.spindle.length < MOST_POINTS && (
        <Button
          compact
          style={{ alignSelf: 'flex-start' }}
          onPress={() =>
            change({ spindle: [...machine.spindle, { rpm: Math.min(200000, last.rpm + 1000), kW: last.kW }] })
          }
        >
          Add a point
        </Button>
      )}
    </Card>
  );
}

const AXIS_FIELDS = Object.entries(parametersOf(Axis));

/** What each axis does: its travel, rapid and acceleration. */
function AxesCard({ machine, change, draft }: Editing) {
  const { axes } = machine;
  return (
    <Card>
      <Txt heading kind="large">
        Travel and speed of each axis
      </Txt>
      {AXIS_NAMES.map((axis) => (
        <Fields key={axis}>
          {AXIS_FIELDS.map(([key, info]) => (
            <ParameterField
              key={key}
              info={{ ...info, label: `${axis.toUpperCase()} ${info.label}`, step: undefined }}
              value={axes[axis][key as keyof Axis]}
              unit="mm"
              testID={`field-axes-${axis}-${key}`}
              onChange={(value) => change({ axes: { ...axes, [axis]: { ...axes[axis], [key]: value } } })}
            />
          ))}
        </Fields>
      ))}
      {under(draft, 'axes')}
    </Card>
  );
}

function CarouselCard({ machine, change, draft }: Editing) {
  const { items: tools } = useShelf('tools');
  const free = tools.filter((t) => !machine.carousel.some((p) => p.toolId === t.id));
  const freePocket = () => {
    let n = 1;
    while (machine.carousel.some((p) => p.pocket === n)) n++;
    return Math.min(n, machine.toolPockets);
  };
  const places = machine.carousel.map((p, i) => ({ ...p, i })).sort((a, b) => a.pocket - b.pocket);
  return (
    <Card>
      <Txt heading kind="large">
        Carousel
      </Txt>
      <Txt kind="small" tone="quiet">
        Which tool stands where on this machine. A tool that is not listed keeps the pocket of the rack.
      </Txt>
      {places.map((p) => (
        <View key={p.toolId} style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
          <View style={{ width: 120 }}>
            <NumberField
              label="Pocket"
              whole
              value={p.pocket}
              min={1}
              max={999}
              onChange={(pocket) =>
                change({ carousel: machine.carousel.map((q, k) => (k === p.i ? { ...q, pocket } : q)) })
              }
            />
          </View>
          <Txt style={{ flex: 1 }}>
            {tools.find((t) => t.id === p.toolId)?.name ?? `${p.toolId}, no longer in the rack`}
          </Txt>
          <IconButton
            icon="close"
            accessibilityLabel="Take it out"
            onPress={() => change({ carousel: machine.carousel.filter((_, k) => k !== p.i) })}
          />
        </View>
      ))}
      {under(draft, 'carousel')}
      {free.length > 0 && machine.carousel.length < machine.toolPockets && (
        <Choices
          label="Put one in"
          value={undefined}
          options={free.map((t) => ({ value: t.id, label: `T${t.number} ${t.name}` }))}
          onChange={(toolId) => change({ carousel: [...machine.carousel, { pocket: freePocket(), toolId }] })}
        />
      )}
    </Card>
  );
}

/** One machine: its spindle's curve, axes, coolants and carousel. */
export function MachinePage({ id }: { id: string }) {
  const { items: controllers } = useShelf('controllers');
  const draft = useDraft('machines', id);
  const { item: machine, findings, change } = draft;
  return (
    <ItemPage shelf="machines" id={id} title={machine?.name} back="/shop" draft={draft}>
      {machine && (
        <>
          <SpindleCard machine={machine} change={change} draft={draft} />
          <ValueForm
            item={machine}
            fields={FIELDS}
            unit="mm"
            findings={findings}
            onChange={change}
            under={(key) => (
              <Origin start={startOf(machine, key as keyof Machine)} onPutBack={(v) => change({ [key]: v })} />
            )}
          />
          <AxesCard machine={machine} change={change} draft={draft} />
          <Card>
            <Txt heading kind="large">
              Coolants and controller
            </Txt>
            {COOLANTS.filter((c) => c !== 'off').map((c) => (
              <Tick
                key={c}
                label={c}
                on={machine.coolants.includes(c)}
                onPress={() =>
                  change({
                    coolants: machine.coolants.includes(c)
                      ? machine.coolants.filter((x) => x !== c)
                      : [...machine.coolants, c],
                  })
                }
              />
            ))}
            <Choices
              label="Controller"
              value={machine.controllerId}
              options={controllers.map((c) => ({ value: c.id, label: c.name }))}
              onChange={(controllerId) => change({ controllerId })}
            />
          </Card>
          <CarouselCard machine={machine} change={change} draft={draft} />
          <LessonsCard item={machine.id} title="Its time, from the log" />
        </>
      )}
    </ItemPage>
  );
}
