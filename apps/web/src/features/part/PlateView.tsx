import { ComponentProps, useCallback, useMemo } from 'react';
import { Part, bodyAs } from '@tidypath/core';
import { SolidView } from '../../scene/SolidView';
import { Empty } from '../../ui/Empty';
import { Txt } from '../../ui/Txt';
import { PlanDrawing } from './PlanDrawing';
import { MEANING_WORDS, featureWords } from './words';
import { useSculpted } from './useSculpted';

interface Props extends ComponentProps<typeof PlanDrawing> {
  /** The part with what is cut from all its sides. */
  whole: Part;
  isSolid: boolean;
  label: string;
}

/** A plate, drawn flat or as the solid it becomes; a tap on either chooses the feature. */
export function PlateView({ whole, isSolid, label, ...drawing }: Props) {
  const { selected, onSelect, unit } = drawing;
  const { sculpted, failed } = useSculpted(whole, isSolid);
  const [x, y, z] = useMemo(() => bodyAs(whole, 'top').size, [whole]);
  const chosen = useMemo(
    () => (sculpted?.made ?? []).flatMap((feature, face) => (feature && feature === selected ? [face] : [])),
    [sculpted, selected],
  );
  const pick = useCallback(
    (face: number) => {
      const feature = sculpted?.made[face];
      if (feature) onSelect(feature);
    },
    [sculpted, onSelect],
  );
  // The numbers it was drawn with: of chords a surface is only nearly told.
  const say = (face: number) => {
    const feature = whole.features.find((f) => f.id === sculpted?.made[face]);
    return feature && `${feature.name}: ${MEANING_WORDS[feature.meaning]}, ${featureWords(feature, unit)}`;
  };
  if (!isSolid) return <PlanDrawing {...drawing} />;
  if (failed)
    return (
      <Empty title="No solid to look at">
        <Txt tone="quiet">{failed}.</Txt>
      </Empty>
    );
  if (!sculpted)
    return (
      <Empty title="A moment">
        <Txt tone="quiet">The solid is being sculpted…</Txt>
      </Empty>
    );
  return <SolidView surface={sculpted.surface} size={{ x, y, z }} {...{ unit, chosen, label, say }} onPick={pick} />;
}
