import { LengthUnit, WrongPlace, formatVolume, lengthNumber } from '@tidypath/core';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { LinkList, LinkRow } from './LinkRow';
import { offText } from './measures';

interface Props {
  places: WrongPlace[];
  /** Work zero, part coordinates. */
  zero: { x: number; y: number };
  unit: LengthUnit;
  onPlace: (place: WrongPlace) => void;
}

/** Where the finished piece is not as the part wants it, the worst first. */
export function PlacesCard({ places, zero, unit, onPlace }: Props) {
  return (
    <Card testID="places">
      <Txt heading>Against the part</Txt>
      {places.length === 0 && <Txt>Everything the part asks for is cut, and nothing is cut into it.</Txt>}
      <LinkList>
        {places.map((p, i) => (
          <LinkRow
            key={i}
            testID={`place-${i}`}
            left={`${offText(p.by, p.kind, unit)}, ${formatVolume(p.volume, unit, true)}`}
            right={`X ${lengthNumber(p.x - zero.x, unit)} Y ${lengthNumber(p.y - zero.y, unit)}`}
            onPress={() => onPlace(p)}
          />
        ))}
      </LinkList>
      <Txt kind="small" tone="quiet">
        Tap the picture to probe any point.
      </Txt>
    </Card>
  );
}
