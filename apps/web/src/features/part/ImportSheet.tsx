import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Switch } from 'react-native-paper';
import { Feature, IMPORT_DEFAULTS, ImportOptions, Imported, LengthUnit, hasStop, onZero } from '@tidypath/core';
import { engine } from '../../compute/engine';
import { SPACE } from '../../theme/theme';
import { Actions } from '../../ui/Actions';
import { Choices, UNITS, plainOptions } from '../../ui/Choices';
import { counted } from '../../ui/counted';
import { FindingCard } from '../../ui/FindingCard';
import { LengthField } from '../../ui/LengthField';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { DrawingPicture } from './DrawingPicture';

const MOST_SHOWN = 12;

interface Props {
  file: { name: string; text: string } | undefined;
  unit: LengthUnit;
  thickness: number;
  onTake: (features: Feature[]) => void;
  onClose: () => void;
}

/** A drawing as it is read in the worker; what it was before stays until it has been read anew. */
function useDrawing(text: string | undefined, { unit, tolerance, bridge, thickness }: ImportOptions) {
  const [read, setRead] = useState<{ of?: string; found?: Imported; failed?: string }>({});
  useEffect(() => {
    if (text === undefined) return;
    let isWanted = true;
    const take = (more: { found?: Imported; failed?: string }) => isWanted && setRead({ of: text, ...more });
    engine.drawing(text, { unit, tolerance, bridge, thickness }).then(
      (found) => take({ found }),
      (error: Error) => take({ failed: error.message }),
    );
    return () => void (isWanted = false);
  }, [text, unit, tolerance, bridge, thickness]);
  return read.of === text ? read : {};
}

/** What a drawing holds before it is taken in: units when it names none, gaps closed only when told. */
export function ImportSheet({ file, unit, thickness, onTake, onClose }: Props) {
  const [assumed, setAssumed] = useState<LengthUnit>(unit);
  const [bridge, setBridge] = useState(0);
  const [lands, setLands] = useState(false);
  const { found, failed } = useDrawing(file?.text, { ...IMPORT_DEFAULTS, unit: assumed, bridge, thickness });
  if (!file) return null;
  if (!found)
    return (
      <Sheet title={file.name} open onClose={onClose}>
        <Txt live tone={failed ? 'danger' : 'ink'}>
          {failed ? `▲ The drawing could not be read: ${failed}` : 'Reading the drawing …'}
        </Txt>
      </Sheet>
    );
  const closed = found.features.filter((f) => f.shape.type === 'chain' && f.shape.closed).length;
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
          onTake={() => onTake(lands ? onZero(found.features) : found.features)}
          disabled={hasStop(found.findings) && found.features.length === 0}
        />
      }
    >
      <Txt testID="import-summary">
        {counted(closed, 'closed outline', 'closed outlines')},{' '}
        {counted(found.features.length - closed, 'open curve', 'open curves')},{' '}
        {counted(found.gaps.length, 'gap', 'gaps')}.{' '}
        {found.unit ? `The drawing is in ${found.unit}.` : 'The drawing names no unit.'}
      </Txt>
      <DrawingPicture features={found.features} marks={found.findings.flatMap((f) => f.place.at ?? [])} />
      {!found.unit && (
        <Choices label="The drawing is in" value={assumed} onChange={setAssumed} options={plainOptions(UNITS)} />
      )}
      {(found.gaps.length > 0 || bridge > 0) && (
        <LengthField
          label="Close gaps up to"
          value={bridge}
          unit={unit}
          min={0}
          max={100}
          help="0 leaves them open"
          onChange={setBridge}
        />
      )}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
        <Switch value={lands} onValueChange={setLands} accessibilityLabel="Onto zero" />
        <Txt style={{ flexShrink: 1 }}>Its front left corner onto zero</Txt>
      </View>
      {found.findings.slice(0, MOST_SHOWN).map((f, i) => (
        <FindingCard key={i} finding={f} />
      ))}
      {found.findings.length > MOST_SHOWN && (
        <Txt kind="small" tone="quiet">
          and {found.findings.length - MOST_SHOWN} more
        </Txt>
      )}
    </Sheet>
  );
}
