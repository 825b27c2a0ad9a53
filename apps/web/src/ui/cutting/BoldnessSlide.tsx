import { boldnessWord } from '@tidypath/core';
import { Slide } from '../Slide';

/** From a first cut on an unknown machine, below the sheet, over settled to pushing; hard limits hold at any boldness. */
export function BoldnessSlide({ value, onChange }: { value: number; onChange: (b: number) => void }) {
  return <Slide label="Boldness" value={value} word={boldnessWord(value)} onChange={onChange} />;
}
