import { Bar, parametersOf } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { Card } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Txt } from '../../ui/Txt';
import { ValueForm } from '../../ui/ValueForm';
import { ItemPage } from '../../shell/ItemPage';
import { useDraft } from '../../shell/useDraft';

const FIELDS = parametersOf(Bar);

/** One bar or plate: what it is of, its section, how it is sawn, what it costs. */
export function BarPage({ id }: { id: string }) {
  const { items: materials } = useShelf('materials');
  const draft = useDraft('bars', id);
  const { item: bar, findings, change } = draft;
  return (
    <ItemPage shelf="bars" id={id} title={bar?.name} back="/shop" draft={draft}>
      {bar && (
        <>
          <Card>
            <Choices
              label="Material"
              value={bar.materialId}
              options={materials.map((m) => ({ value: m.id, label: m.name }))}
              onChange={(materialId) => change({ materialId })}
            />
          </Card>
          <ValueForm item={bar} fields={FIELDS} unit="mm" findings={findings} onChange={change} />
          <Txt kind="small" tone="quiet">
            Blanks that are sawn off it take its length and the kerf of each cut. Jobs keep their own copy.
          </Txt>
        </>
      )}
    </ItemPage>
  );
}
