import type { Material } from '@tidypath/core';
import { NumberField } from '../NumberField';

/** The hardness of the bar at hand, where it is known what the figures of its material are for. */
export function HardnessField({ material, onChange }: { material: Material; onChange: (hb: number) => void }) {
  const { brinell, atHand } = material;
  if (!brinell) return null;
  return (
    <NumberField
      label="Hardness of the bar, HB"
      value={atHand ?? brinell}
      min={5}
      max={800}
      help={`its figures are for ${brinell} HB; force and speed follow`}
      testID="hardness"
      onChange={onChange}
    />
  );
}
