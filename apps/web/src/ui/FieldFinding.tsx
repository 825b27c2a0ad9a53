import type { Finding } from '@tidypath/core';
import { LEVEL_MARK } from './FindingCard';
import { Txt } from './Txt';

/** A finding in one line, under the field it belongs to. */
export function FieldFinding({ finding }: { finding: Finding }) {
  return (
    <Txt kind="small" tone={finding.level === 'stop' ? 'danger' : 'care'} testID={`finding-${finding.code}`} live>
      {LEVEL_MARK[finding.level]} {finding.message}. {finding.remedy}.
    </Txt>
  );
}
