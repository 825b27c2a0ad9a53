import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import {
  Fixture,
  GRIPS,
  HOLDINGS,
  Setup,
  addHolding,
  clampBeside,
  clampsBefore,
  editOperation,
  gripsOf,
  groundOf,
  partModel,
  withHolding,
  withSetup,
} from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { GRIP_WORDS } from '../../ui/cutting/words';
import { Card, Fields, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';
import { Holds } from './Holds';
import { JawsJob } from './JawsJob';
import { ThingCard } from './ThingCard';

/** One box in the way by its corner and size. */
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

interface Props {
  /** The grip that is shown: the step that makes it, none for that at the start. */
  grip: string | undefined;
  onGrip: (id: string | undefined) => void;
  setGrip: (grip: Setup['grip']) => void;
}

const START = '';
/** What alone holds work that leans. */
const LEANING = 'sine plate';

/** How firmly the work is held, and by what: things that hold it, and boxes in the way at the start and from each step on that grips it anew. */
export function HoldingCard({ grip, onGrip, setGrip }: Props) {
  const { job, setup, edit } = useJob();
  const [adding, setAdding] = useState(false);
  const ground = groundOf(job, setup, partModel);
  const grips = gripsOf(setup);
  const shown = grips.find((o) => o.id === grip);
  const fixtures = clampsBefore(setup, shown?.id, true);
  const own = (s: Setup) => s.id === setup.id;
  const setFixtures = (next: Fixture[], tag = '') =>
    edit(
      (j) =>
        shown
          ? editOperation(j, shown.id, (o) => ({ ...o, params: { ...o.params, clamps: next } }))
          : { ...j, setups: j.setups.map((s) => (own(s) ? { ...s, fixtures: next } : s)) },
      tag,
    );
  const add = (kind: string) => {
    edit((j) => addHolding(j, j.setups.find(own)!, kind));
    setAdding(false);
  };
  return (
    <View style={{ gap: SPACE.m }}>
      <Txt heading kind="large">
        Holding
      </Txt>
      <Holds job={job} setup={setup} />
      {ground.held.map(({ holding, placed }) => (
        <ThingCard
          key={holding.id}
          holding={holding}
          unit={job.unit}
          features={ground.work.features}
          under={placed.under}
          findings={placed.findings}
          more={holding.kind === 'soft jaws' && <JawsJob job={job} setup={setup} />}
          onChange={(next) =>
            edit((j) => withSetup(j, withHolding(j.setups.find(own)!, holding.id, next)), `hold-${holding.id}`)
          }
          onDelete={() => edit((j) => withSetup(j, withHolding(j.setups.find(own)!, holding.id)))}
        />
      ))}
      <Row>
        {ground.held.length === 0 && (
          <Button mode="outlined" onPress={() => add(setup.lean ? LEANING : 'vise')}>
            {setup.lean ? 'Hold it on a sine plate' : 'Hold it in a vise'}
          </Button>
        )}
        <Button mode="outlined" onPress={() => setAdding(true)} testID="add-holding">
          {ground.held.length ? 'Add something that holds' : 'Otherwise …'}
        </Button>
      </Row>
      <Choices
        label="Besides, the work is held"
        value={setup.grip ?? 'fair'}
        onChange={setGrip}
        options={GRIPS.map((value) => ({ value, label: GRIP_WORDS[value] }))}
      />
      {grips.length > 0 && (
        <Choices
          label="Boxes in the way"
          value={shown?.id ?? START}
          onChange={(id) => onGrip(id || undefined)}
          options={[
            { value: START, label: 'at the start' },
            ...grips.map((o) => ({ value: o.id, label: `from “${o.name}” on` })),
          ]}
        />
      )}
      <Row>
        <Button mode="outlined" onPress={() => setFixtures([...fixtures, clampBeside(ground.stock, fixtures)])}>
          Add a box in the way
        </Button>
      </Row>
      {fixtures.map((f) => (
        <FixtureCard
          key={f.id}
          fixture={f}
          onChange={(next) =>
            setFixtures(
              fixtures.map((x) => (x.id === next.id ? next : x)),
              `fixture-${grip ?? ''}-${next.id}`,
            )
          }
          onDelete={() => setFixtures(fixtures.filter((x) => x.id !== f.id))}
        />
      ))}
      <Sheet title="What holds the work" open={adding} onClose={() => setAdding(false)}>
        {HOLDINGS.filter((k) => (k.kind === LEANING) === !!setup.lean).map((k) => (
          <View key={k.kind} style={{ gap: SPACE.xs }}>
            <Button mode="outlined" onPress={() => add(k.kind)} testID={`hold-by-${k.kind}`}>
              {k.title}
            </Button>
            <Txt kind="small" tone="quiet">
              {k.help}
            </Txt>
          </View>
        ))}
        <Txt kind="small" tone="quiet">
          Forces and friction are estimates: your vise’s maker, your shop’s rules and your supervisor decide.
        </Txt>
      </Sheet>
    </View>
  );
}
