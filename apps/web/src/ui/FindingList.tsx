import { Fragment, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Finding } from '@tidypath/core';
import { SPACE } from '../theme/theme';
import { FindingCard } from './FindingCard';

/** So many of one kind are shown at once; the others unfold. */
const FEW = 3;

interface Props {
  findings: Finding[];
  /** What goes to the place of a finding, where it has one. */
  goTo: (finding: Finding) => (() => void) | undefined;
  goLabel: string;
}

/** Findings in their order; where there are many of one kind, the first few. */
export function FindingList({ findings, goTo, goLabel }: Props) {
  const [unfolded, setUnfolded] = useState<string[]>([]);
  const alike = (f: Finding) => findings.filter((other) => other.code === f.code);
  const isShown = (f: Finding) => unfolded.includes(f.code) || alike(f).indexOf(f) < FEW;
  return (
    <View role="list" style={{ gap: SPACE.s }}>
      {findings.filter(isShown).map((f, i) => {
        const more = unfolded.includes(f.code) || alike(f).indexOf(f) !== FEW - 1 ? 0 : alike(f).length - FEW;
        return (
          <Fragment key={i}>
            <FindingCard finding={f} onGo={goTo(f)} goLabel={goLabel} />
            {more > 0 && (
              <Button compact onPress={() => setUnfolded([...unfolded, f.code])} testID={`more-${f.code}`}>
                {more} more like this
              </Button>
            )}
          </Fragment>
        );
      })}
    </View>
  );
}
