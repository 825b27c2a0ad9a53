import { useState } from 'react';
import { View } from 'react-native';
import { Searchbar } from 'react-native-paper';
import { TOOLS } from '@tidypath/core';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Empty } from '../../ui/Empty';
import { Txt } from '../../ui/Txt';
import { ToolLine } from './ToolLine';

/** The shop's starting rack, each tool drawn to scale. */
export function ToolsPage() {
  const wide = useWide();
  const [wanted, setWanted] = useState('');
  const found = TOOLS.filter((t) =>
    `t${t.number} ${t.name} ${t.kind} ${t.material}`.toLowerCase().includes(wanted.trim().toLowerCase()),
  );
  return (
    <Page title="Tools">
      <Txt tone="quiet">The starting rack. A job copies the tools it uses, so that it stays whole by itself.</Txt>
      <Searchbar
        icon="magnify"
        clearIcon="close"
        placeholder="Number, name or kind"
        accessibilityLabel="Search tools"
        value={wanted}
        onChangeText={setWanted}
      />
      {found.length === 0 && (
        <Empty title="No such tool">
          <Txt tone="quiet">Try a number, a size or a kind: “drill”, “10 mm”.</Txt>
        </Empty>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
        {found.map((tool) => (
          <View key={tool.id} style={{ width: wide ? '49%' : '100%' }}>
            <ToolLine tool={tool} unit="mm" />
          </View>
        ))}
      </View>
    </Page>
  );
}
