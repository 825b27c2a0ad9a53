import { View } from 'react-native';
import { Switch, TextInput } from 'react-native-paper';
import { CYCLES, COOLANTS, Controller, Finding, parametersOf } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card, Fields } from '../../ui/Card';
import { FieldFinding } from '../../ui/FieldFinding';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { ValueForm } from '../../ui/ValueForm';
import { ItemPage } from '../../shell/ItemPage';
import { useDraft } from '../../shell/useDraft';

const FIELDS = parametersOf(Controller);

interface WordProps {
  label: string;
  value: string;
  finding?: Finding;
  lines?: boolean;
  onChange: (text: string) => void;
}

/** A word of the program, or several lines of it. */
function WordField({ label, value, finding, lines, onChange }: WordProps) {
  return (
    <View>
      <TextInput
        mode="outlined"
        dense
        multiline={lines}
        label={label}
        aria-label={label}
        value={value}
        onChangeText={onChange}
      />
      {finding && <FieldFinding finding={finding} />}
    </View>
  );
}

const toLines = (text: string) => (text === '' ? [] : text.split('\n'));

/** One dialect: what it can do and the words it uses. The writer asks this, never the name. */
export function ControllerPage({ id }: { id: string }) {
  const draft = useDraft('controllers', id);
  const { item: c, findings, change } = draft;
  const at = (field: string) => findings.find((f) => f.place.field === field);
  const heading = (text: string) => (
    <Txt heading kind="large">
      {text}
    </Txt>
  );
  return (
    <ItemPage shelf="controllers" id={id} title={c?.name} back="/shop" draft={draft}>
      {c && (
        <>
          <ValueForm item={c} fields={FIELDS} unit="mm" findings={findings} onChange={change} />
          <Card>
            {heading('Canned cycles')}
            <Txt kind="small" tone="quiet">
              A cycle without a word is written out as moves.
            </Txt>
            <Fields>
              {CYCLES.map((cycle) => (
                <WordField
                  key={cycle}
                  label={cycle}
                  value={c.cycles[cycle] ?? ''}
                  finding={at(`cycles.${cycle}`)}
                  onChange={(text) => change({ cycles: { ...c.cycles, [cycle]: text || undefined } })}
                />
              ))}
            </Fields>
          </Card>
          <Card>
            {heading('Probe')}
            <Txt kind="small" tone="quiet">
              Without both words it finds no zero by itself. In the line {'{offset}'}, {'{axis}'} and {'{value}'} are
              filled in.
            </Txt>
            <Fields>
              {(['touch', 'zero'] as const).map((word) => (
                <WordField
                  key={word}
                  label={word === 'touch' ? 'Moves until it touches' : 'Sets the zero there'}
                  value={c.probe?.[word] ?? ''}
                  finding={at(`probe.${word}`)}
                  onChange={(text) => {
                    const probe = { touch: '', zero: '', ...c.probe, [word]: text };
                    change({ probe: probe.touch || probe.zero ? probe : undefined });
                  }}
                />
              ))}
            </Fields>
          </Card>
          <Card>
            {heading('Coolant')}
            <Txt kind="small" tone="quiet">
              A coolant without a word cannot be asked for.
            </Txt>
            <Fields>
              {COOLANTS.filter((x) => x !== 'off').map((coolant) => (
                <WordField
                  key={coolant}
                  label={coolant}
                  value={c.coolant[coolant] ?? ''}
                  finding={at(`coolant.${coolant}`)}
                  onChange={(text) => change({ coolant: { ...c.coolant, [coolant]: text || undefined } })}
                />
              ))}
            </Fields>
          </Card>
          <Card>
            {heading('Numbers')}
            <Fields>
              {(['mm', 'inch', 'feed'] as const).map((key) => (
                <NumberField
                  key={key}
                  label={key === 'feed' ? 'Decimals of feeds' : `Decimals in ${key}`}
                  whole
                  value={c.decimals[key]}
                  min={0}
                  max={6}
                  onChange={(v) => change({ decimals: { ...c.decimals, [key]: v } })}
                />
              ))}
              <NumberField
                label="Line number step"
                whole
                value={c.lineNumbers.step}
                min={1}
                max={100}
                onChange={(step) => change({ lineNumbers: { step } })}
              />
            </Fields>
          </Card>
          <Card>
            {heading('Lines')}
            <WordField
              lines
              label="First lines"
              value={c.frame.open.join('\n')}
              finding={at('frame.open')}
              onChange={(text) => change({ frame: { ...c.frame, open: toLines(text) } })}
            />
            <WordField
              lines
              label="Last lines"
              value={c.frame.close.join('\n')}
              finding={at('frame.close')}
              onChange={(text) => change({ frame: { ...c.frame, close: toLines(text) } })}
            />
            <WordField
              lines
              label="Safe start"
              value={c.safeStart.join('\n')}
              finding={at('safeStart')}
              onChange={(text) => change({ safeStart: toLines(text) })}
            />
            <WordField
              lines
              label="Retreat before a tool change"
              value={c.retreat.join('\n')}
              finding={at('retreat')}
              onChange={(text) => change({ retreat: toLines(text) })}
            />
            <Fields>
              <WordField
                label="Remark opens"
                value={c.comment.open}
                finding={at('comment.open')}
                onChange={(open) => change({ comment: { ...c.comment, open } })}
              />
              <WordField
                label="Remark closes"
                value={c.comment.close}
                finding={at('comment.close')}
                onChange={(close) => change({ comment: { ...c.comment, close } })}
              />
            </Fields>
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.m }}>
              <Switch
                value={c.comment.upperCase}
                onValueChange={(upperCase) => change({ comment: { ...c.comment, upperCase } })}
                accessibilityLabel="Remarks in capitals"
              />
              <Txt>Remarks in capitals</Txt>
            </View>
            <Txt kind="small" tone="quiet">
              Prove a program of a changed dialect in the air, high above the table, before it meets metal.
            </Txt>
          </Card>
        </>
      )}
    </ItemPage>
  );
}
