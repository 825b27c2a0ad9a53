import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import useSWR from 'swr';
import { PIN, Person, ROLES, Role } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Sheet } from '../../ui/Sheet';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';

const ROLE_HELP: Record<Role, string> = {
  learner: 'somebody approves their programs',
  programmer: 'plans, proves and releases',
  approver: 'approves, and says who is who',
};

type Attempt = (work: () => Promise<unknown>) => Promise<void>;

function PinField({ label, pin, onPin }: { label: string; pin: string; onPin: (pin: string) => void }) {
  return (
    <TextInput
      mode="outlined"
      label={label}
      aria-label={label}
      value={pin}
      onChangeText={(text) => onPin(text.replace(/\D/g, '').slice(0, 6))}
      secureTextEntry
      inputMode="numeric"
    />
  );
}

/** Enters somebody, or changes what is known of them. */
function PersonSheet({ person, onClose, attempt }: { person?: Person; onClose: () => void; attempt: Attempt }) {
  const [name, setName] = useState(person?.name ?? '');
  const [roles, setRoles] = useState<Role[]>(person?.roles ?? ['programmer']);
  const [pin, setPin] = useState('');
  const entry = { name: name.trim(), roles };
  const ready = entry.name !== '' && roles.length > 0 && (pin === '' || PIN.test(pin));
  const save = (more: { pin?: string | null }) =>
    attempt(() =>
      person
        ? api.changePerson(person.id, { ...entry, ...more })
        : api.addPerson({ ...entry, pin: more.pin ?? undefined }),
    ).then(onClose);
  return (
    <Sheet title={person ? person.name : 'Somebody new'} open onClose={onClose}>
      <TextInput
        mode="outlined"
        label="Name"
        aria-label="Name"
        value={name}
        onChangeText={(text) => setName(text.slice(0, 60))}
        testID="person-name"
      />
      {ROLES.map((role) => (
        <Tick
          key={role}
          label={`${role}: ${ROLE_HELP[role]}`}
          on={roles.includes(role)}
          onPress={() => setRoles((all) => ROLES.filter((r) => all.includes(r) !== (r === role)))}
        />
      ))}
      <PinField label={person?.hasPin ? 'Another PIN' : 'PIN, four to six digits, or none'} pin={pin} onPin={setPin} />
      <Txt kind="small" tone="quiet">
        A PIN keeps one from signing for another by mistake. It is no lock: over plain http it can be read on the way,
        and who owns the server’s machine owns its data.
      </Txt>
      <Row>
        <Button mode="contained" disabled={!ready} onPress={() => void save(pin ? { pin } : {})}>
          {person ? 'Keep it' : 'Add'}
        </Button>
        {person?.hasPin && <Button onPress={() => void save({ pin: null })}>No PIN any more</Button>}
        {person && (
          <Button onPress={() => void attempt(() => api.removePerson(person.id)).then(onClose)}>Take out</Button>
        )}
      </Row>
    </Sheet>
  );
}

/** Asks for the PIN of whoever is to be at this device. */
function PinSheet({ person, onClose, attempt }: { person: Person; onClose: () => void; attempt: Attempt }) {
  const [pin, setPin] = useState('');
  return (
    <Sheet title={person.name} open onClose={onClose}>
      <PinField label="PIN" pin={pin} onPin={setPin} />
      <Button
        mode="contained"
        disabled={!PIN.test(pin)}
        onPress={() => void attempt(() => api.choosePerson(person.id, pin)).then(onClose)}
      >
        This is me
      </Button>
    </Sheet>
  );
}

/** Who works here, and who of them is at this device: their name stands beside what is saved from it. */
export function People() {
  const { data, mutate } = useSWR(KEYS.people, api.people);
  const [editing, setEditing] = useState<Person | 'new'>();
  const [choosing, setChoosing] = useState<Person>();
  const [problem, setProblem] = useState<string>();
  const attempt: Attempt = async (work) => {
    try {
      await work();
      setProblem(undefined);
    } catch (e) {
      setProblem((e as ApiError).message);
    }
    await mutate();
  };
  const choose = (p: Person) => (p.hasPin ? setChoosing(p) : void attempt(() => api.choosePerson(p.id, '')));
  return (
    <View style={{ gap: SPACE.s }}>
      <Row>
        <Txt heading kind="large" style={{ flexGrow: 1 }}>
          People
        </Txt>
        <Button compact icon="plus" disabled={!data} onPress={() => setEditing('new')}>
          Somebody new
        </Button>
      </Row>
      {problem && (
        <Txt tone="danger" live>
          ▲ {problem}
        </Txt>
      )}
      {data?.people.length === 0 && (
        <Txt kind="small" tone="quiet">
          Nobody yet. Entered here and chosen on a device, their names stand in the history of what they save.
        </Txt>
      )}
      {data?.people.map((p) => (
        <Card key={p.id}>
          <Row>
            <View style={{ flexGrow: 1 }}>
              <Txt bold>
                {p.name}
                {p.id === data.here ? ', at this device' : ''}
              </Txt>
              <Txt kind="small" tone="quiet">
                {p.roles.join(', ')}
                {p.hasPin ? ', with a PIN' : ''}
              </Txt>
            </View>
            <Button compact onPress={() => setEditing(p)} accessibilityLabel={`Change ${p.name}`}>
              Change
            </Button>
            {p.id === data.here ? (
              <Button compact mode="outlined" onPress={() => void attempt(api.nobodyHere)}>
                Not me any more
              </Button>
            ) : (
              <Button compact mode="outlined" onPress={() => choose(p)} accessibilityLabel={`This is me, ${p.name}`}>
                This is me
              </Button>
            )}
          </Row>
        </Card>
      ))}
      {editing && (
        <PersonSheet
          key={editing === 'new' ? 'new' : editing.id}
          person={editing === 'new' ? undefined : editing}
          onClose={() => setEditing(undefined)}
          attempt={attempt}
        />
      )}
      {choosing && <PinSheet person={choosing} onClose={() => setChoosing(undefined)} attempt={attempt} />}
    </View>
  );
}
