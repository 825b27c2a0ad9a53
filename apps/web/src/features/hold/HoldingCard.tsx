import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import {
  Fixture,
  GRIPS,
  Setup,
  clampBeside,
  clampsBefore,
  editOperation,
  gripsOf,
  jawsFor,
  StockModel,
} from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { GRIP_WORDS } from '../../ui/cutting/words';
import { Card, Fields, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';
import { useJob } from '../../session/JobContext';

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

interface Props {
  stock: StockModel;
  /** The grip that is shown: the step that makes it, none for that at the start. */
  grip: string | undefined;
  onGrip: (id: string | undefined) => void;
  setGrip: (grip: Setup['grip']) => void;
}

const START = '';

/** How firmly the work is held, and by what: at the start, and from each step on that grips it anew. */
export function HoldingCard({ stock, grip, onGrip, setGrip }: Props) {
  const { job, setup, edit } = useJob();
  const grips = gripsOf(setup);
  const shown = grips.find((o) => o.id === grip);
  const fixtures = clampsBefore(setup, shown?.id, true);
  const setFixtures = (next: Fixture[], tag = '') =>
    edit(
      (j) =>
        shown
          ? editOperation(j, shown.id, (o) => ({ ...o, params: { ...o.params, clamps: next } }))
          : { ...j, setups: j.setups.map((s) => (s.id === setup.id ? { ...s, fixtures: next } : s)) },
      tag,
    );
  return (
    <View style={{ gap: SPACE.m }}>
      <Txt heading kind="large">
        Holding
      </Txt>
      <Choices
        label="The work is held"
        value={setup.grip ?? 'fair'}
        onChange={setGrip}
        options={GRIPS.map((value) => ({ value, label: GRIP_WORDS[value] }))}
      />
      {grips.length > 0 && (
        <Choices
          label="Jaws and clamps"
          value={shown?.id ?? START}
          onChange={(id) => onGrip(id || undefined)}
          options={[
            { value: START, label: 'at the start' },
            ...grips.map((o) => ({ value: o.id, label: `from “${o.name}” on` })),
          ]}
        />
      )}
      <Txt kind="small" tone="quiet">
        Jaws and clamps are things to hit; the proof looks out for them.
      </Txt>
      <Row>
        <Button mode="outlined" onPress={() => setFixtures(jawsFor(job, setup))}>
          Vise jaws
        </Button>
        <Button mode="outlined" onPress={() => setFixtures([...fixtures, clampBeside(stock, fixtures)])}>
          Add a clamp
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
    </View>
  );
}
