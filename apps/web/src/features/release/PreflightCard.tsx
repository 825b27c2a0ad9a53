import { View } from 'react-native';
import { Check, Finding, TOPIC_WORDS, acceptedKey, gravest } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { LEVEL_MARK } from '../../ui/FindingCard';
import { FindingList } from '../../ui/FindingList';
import { Fold } from '../../ui/Fold';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';

interface Props {
  checks: Check[];
  accepted: string[];
  onAccept: (key: string) => void;
  /** What goes to the place of a finding, where it has one. */
  goTo: (finding: Finding) => { label: string; go: () => void } | undefined;
}

function Found({ finding, accepted, onAccept, goTo }: { finding: Finding } & Omit<Props, 'checks'>) {
  const key = acceptedKey(finding);
  const way = goTo(finding);
  return (
    <View>
      <FindingList findings={[finding]} goTo={() => way?.go} goLabel={way?.label ?? ''} />
      {finding.level === 'care' && (
        <Tick label="Looked at, and taken as it is" on={accepted.includes(key)} onPress={() => onAccept(key)} />
      )}
    </View>
  );
}

function Topic({ check, ...props }: { check: Check } & Omit<Props, 'checks'>) {
  const level = gravest(check);
  const grave = check.findings.filter((f) => f.level !== 'note');
  const notes = check.findings.filter((f) => f.level === 'note');
  return (
    <View style={{ gap: SPACE.s }} testID={`check-${check.topic}`}>
      <Txt bold={level !== undefined && level !== 'note'}>
        {level && LEVEL_MARK[level]} {TOPIC_WORDS[check.topic]}
      </Txt>
      {grave.map((f, i) => (
        <Found key={`${f.code}-${i}`} finding={f} {...props} />
      ))}
      {notes.length > 0 && (
        <Fold label={notes.length === 1 ? 'One note' : `${notes.length} notes`}>
          {() => <FindingList findings={notes} goTo={(f) => props.goTo(f)?.go} goLabel="Go there" />}
        </Fold>
      )}
    </View>
  );
}

/** What the program was looked at for before it is released, topic by topic; what wants care is accepted one by one. */
export function PreflightCard({ checks, ...props }: Props) {
  const told = checks.filter((c) => c.findings.length > 0);
  const clean = checks.filter((c) => c.findings.length === 0);
  return (
    <Card testID="preflight">
      <Txt heading bold>
        Before it is released
      </Txt>
      {told.map((check) => (
        <Topic key={check.topic} check={check} {...props} />
      ))}
      <Txt>✓ {clean.map((c) => TOPIC_WORDS[c.topic]).join(' · ')}</Txt>
      <Txt kind="small" tone="quiet">
        What nobody can see from here: the zero, the lengths, the clamping, whether edges are sharp. They are on the
        checklist of the release.
      </Txt>
    </Card>
  );
}
