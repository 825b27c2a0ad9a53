import { useEffect, useRef, useState } from 'react';
import { Pressable, View } from 'react-native';
import { Button, ProgressBar } from 'react-native-paper';
import Svg, { Path } from 'react-native-svg';
import { Face, LengthUnit, ModelUnit, Solid, formatLength, formatVolume, hasStop } from '@tidypath/core';
import { ModelReader } from '../../compute/model';
import type { BodyLooked, BodySeen, Glimpse, ModelSeen, Picture } from '../../compute/model-messages';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Actions } from '../../ui/Actions';
import { Choices } from '../../ui/Choices';
import { counted } from '../../ui/counted';
import { FindingCard } from '../../ui/FindingCard';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

/** A solid that was taken in, with its files. */
export interface TakenIn {
  /** Whether it is to be planned at once. */
  isPlanned: boolean;
  part: Solid;
  surface: Uint8Array;
  source: { name: string; bytes: Uint8Array };
}

interface Props {
  file: { name: string; bytes: Uint8Array } | undefined;
  unit: LengthUnit;
  onTake: (taken: TakenIn) => void;
  onClose: () => void;
}

interface State {
  glimpse?: Glimpse;
  model?: ModelSeen;
  looked?: BodyLooked;
  share?: number;
  failed?: string;
}

/** A file as it is read in its own worker. */
function useReader(file: Props['file'], onTaken: (part: Solid, surface: Uint8Array) => void) {
  const [state, setState] = useState<State>({});
  const reader = useRef<ModelReader | undefined>(undefined);
  const taken = useRef(onTaken);
  useEffect(() => {
    taken.current = onTaken;
  }, [onTaken]);
  useEffect(() => {
    if (!file) return;
    const made = new ModelReader(file.bytes, (answer) => {
      if (answer.type === 'taken') return taken.current(answer.part, answer.surface);
      setState((s) => {
        if (answer.type === 'glimpsed') return { glimpse: answer.glimpse };
        if (answer.type === 'read') return { model: answer.model };
        if (answer.type === 'looked') return { ...s, looked: answer.looked };
        return answer.type === 'share' ? { ...s, share: answer.share } : { ...s, failed: answer.message };
      });
      if (answer.type === 'read' && answer.model.bodies.length > 0) made.look(0);
    });
    reader.current = made;
    made.read();
    return () => made.close();
  }, [file]);
  return { ...state, reader };
}

const SIDES: Record<Face, string> = {
  top: 'as drawn',
  underside: 'turned over',
  front: 'its front up',
  back: 'its back up',
  left: 'its left up',
  right: 'its right up',
};

const UNIT_WORDS: Record<ModelUnit, string> = { mm: 'mm', cm: 'cm', inch: 'inch', m: 'm' };

const sizeText = (size: number[], unit: LengthUnit) =>
  `${size.map((v) => formatLength(v, unit).replace(/ \w+$/, '')).join(' × ')} ${unit === 'mm' ? 'mm' : 'in'}`;

function factsOf({ size, volume }: BodySeen, unit: LengthUnit): string {
  const inside = volume > 0 ? `, ${formatVolume(volume, unit)}` : '';
  return `${sizeText(size, unit)}${inside}`;
}

/** A solid as lines, from a corner above. */
function Sketch({ picture: { path, viewBox }, height }: { picture: Picture; height: number }) {
  const { part } = usePalette();
  return (
    <Svg width="100%" height={height} viewBox={viewBox} preserveAspectRatio="xMidYMid meet">
      <Path d={path} stroke={part} strokeWidth={1} vectorEffect="non-scaling-stroke" fill="none" />
    </Svg>
  );
}

const glimpseText = ({ size, bodies }: Glimpse, unit: LengthUnit): string =>
  `About ${sizeText(size, unit)}${bodies > 1 ? `, the first of ${bodies} bodies` : ''}.`;

/** The ways a solid may lie, each as a small picture with what it shows. */
function Ways({ looked, up, onUp }: { looked: BodyLooked; up: Face; onUp: (up: Face) => void }) {
  const palette = usePalette();
  return (
    <View
      role="radiogroup"
      aria-label="Which side is up"
      style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}
    >
      {looked.ways.map(({ side, reached, picture }) => (
        <Pressable
          key={side}
          role="radio"
          aria-checked={side === up}
          aria-label={`${SIDES[side]}, shows ${reached} of ${looked.faces} faces`}
          testID={`up-${side}`}
          onPress={() => onUp(side)}
          style={{
            width: '31%',
            minHeight: SIZE.touch,
            padding: SPACE.xs,
            borderRadius: SIZE.radius,
            borderWidth: side === up ? 2 : 1,
            borderColor: side === up ? palette.accent : palette.line,
          }}
        >
          <Sketch picture={picture} height={64} />
          <Txt kind="small" bold={side === up}>
            {SIDES[side]}
          </Txt>
          <Txt kind="small" tone="quiet">
            {reached} of {looked.faces}
          </Txt>
        </Pressable>
      ))}
    </View>
  );
}

/** What a file of a solid holds before it becomes the part: its size, its body, its unit, and which side is up. */
export function ModelSheet({ file, unit, onTake, onClose }: Props) {
  const [body, setBody] = useState(0);
  const [assumed, setAssumed] = useState<ModelUnit>('mm');
  const [chosen, setChosen] = useState<Face>();
  const [isTaking, setTaking] = useState(false);
  const isPlanned = useRef(false);
  const { glimpse, model, looked, share, failed, reader } = useReader(file, (part, surface) => {
    if (file) onTake({ part, surface, source: file, isPlanned: isPlanned.current });
  });
  if (!file) return null;
  const seen = model?.bodies[body];
  const known = looked?.body === body ? looked : undefined;
  const up = chosen ?? known?.ways[0].side ?? 'top';
  const take = (plan: boolean) => {
    isPlanned.current = plan;
    setTaking(true);
    reader.current?.take({ body, unit: model?.unit ?? assumed, up }, file.name.slice(0, 120));
  };
  const look = (next: number) => {
    setBody(next);
    setChosen(undefined);
    reader.current?.look(next);
  };
  const takeAs = (next: ModelUnit) => {
    setAssumed(next);
    setBody(0);
    reader.current?.read(next);
  };
  const findings = [...(model?.findings ?? []), ...(seen?.findings ?? [])];
  return (
    <Sheet
      title={file.name}
      open
      onClose={onClose}
      actions={
        <Actions
          leave="Leave it"
          onLeave={onClose}
          take="Take it in"
          onTake={() => take(false)}
          disabled={!known || isTaking || !seen || hasStop(findings)}
        />
      }
    >
      <Txt live tone={failed ? 'danger' : 'ink'} testID="model-summary">
        {failed
          ? `▲ The solid could not be read: ${failed}`
          : !model
            ? `Reading the solid …${glimpse ? ` ${glimpseText(glimpse, unit)}` : ''}`
            : seen
              ? `${model.form === 'surface' ? 'Solid' : model.form}, ${model.unit ? `in ${UNIT_WORDS[model.unit]}` : 'no unit named'}. ${factsOf(seen, unit)}${known ? `, ${counted(known.faces, 'face', 'faces')}` : ''}.`
              : 'Nothing could be taken from this file.'}
      </Txt>
      {glimpse && !failed && <Sketch picture={glimpse.picture} height={180} />}
      {model && !model.unit && model.bodies.length > 0 && (
        <Choices
          label="It was drawn in"
          value={assumed}
          onChange={takeAs}
          options={(['mm', 'cm', 'inch', 'm'] as const).map((value) => ({ value, label: UNIT_WORDS[value] }))}
        />
      )}
      {model && model.bodies.length > 1 && (
        <Choices
          label="The body that is made"
          value={String(body)}
          onChange={(value) => look(Number(value))}
          options={model.bodies.slice(0, 12).map((b, i) => ({
            value: String(i),
            label: `${b.name || `Body ${i + 1}`}: ${factsOf(b, unit)}`,
          }))}
        />
      )}
      {seen && !known && !failed && <Txt tone="quiet">Finding its faces …</Txt>}
      {known && (
        <>
          <Txt>Which side is up, and how many faces are seen from there:</Txt>
          <Ways looked={known} up={up} onUp={setChosen} />
          <Button
            mode="outlined"
            disabled={isTaking || hasStop(findings)}
            onPress={() => take(true)}
            testID="take-and-plan"
          >
            Take it in and plan it
          </Button>
        </>
      )}
      {isTaking && (
        <View accessible role="progressbar" aria-label="Finding features">
          <Txt kind="small" tone="quiet">
            Finding what is to be cut …
          </Txt>
          <ProgressBar progress={share ?? 0} />
        </View>
      )}
      {findings.map((f, i) => (
        <FindingCard key={i} finding={f} />
      ))}
    </Sheet>
  );
}
