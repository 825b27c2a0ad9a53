import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Press, Register } from '@tidypath/controller';
import { LengthUnit } from '@tidypath/core';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

/** What is touched off: a tool, or the work along an axis. */
export type Touched = { tool: number } | { axis: 'x' | 'y' | 'z' };

/** What may be between tip and work, mm. */
const UNDER = { tool: ['0', '50'], side: ['0', '2', '5'] } as const;
const UNDER_WORDS: Record<string, string> = {
  '0': 'nothing',
  '2': 'radius of the finder, 2 mm',
  '5': 'radius of the finder, 5 mm',
  '50': 'the block, 50 mm',
};

interface Props {
  touched: Touched;
  registers: Register[];
  unit: LengthUnit;
  press: (one: Press) => void;
  onClose: () => void;
}

/** Touches off: what is really there and what the control is told are two things, as at any machine. */
export function TouchSheet({ touched, registers, unit, press, onClose }: Props) {
  const isTool = 'tool' in touched;
  const options = isTool || touched.axis === 'z' ? UNDER.tool : UNDER.side;
  const [under, setUnder] = useState<string>(options[options.length - 1]);
  const [told, setTold] = useState<string>(options[options.length - 1]);
  const [n, setN] = useState(isTool ? touched.tool : registers[0]?.tool);
  const register = registers.find((r) => r.tool === n);
  const [typed, setTyped] = useState(register?.entered ?? register?.sheet ?? 0);
  const words = options.map((value) => ({ value, label: UNDER_WORDS[value] }));
  const done = (one: Press) => {
    press(one);
    onClose();
  };
  const values = { under: Number(under), told: Number(told) };
  return (
    <Sheet
      title={isTool ? `Touch off T${touched.tool}` : `Touch off ${touched.axis.toUpperCase()}`}
      open
      onClose={onClose}
      actions={
        <Button
          mode="contained"
          testID="take-touch"
          onPress={() =>
            done(
              isTool
                ? { press: 'touch length', n, ...values }
                : { press: 'touch zero', axis: touched.axis, n, ...values },
            )
          }
        >
          Touch and take it
        </Button>
      }
    >
      <Txt kind="small" tone="quiet">
        Hand off the cutter, spindle still; the last millimetre by the smallest step. What lies between and what the
        control is told have to be the same.
      </Txt>
      {!isTool && touched.axis === 'z' && (
        <Choices
          label="With the tool"
          value={String(n)}
          options={registers.map((r) => ({ value: String(r.tool), label: `T${r.tool} ${r.name}` }))}
          onChange={(value) => setN(Number(value))}
        />
      )}
      <Choices label="Between tip and work lies" value={under} options={words} onChange={setUnder} />
      <Choices label="The control is told" value={told} options={words} onChange={setTold} />
      {isTool && (
        <>
          <LengthField
            label={`Or type H${touched.tool}`}
            value={typed}
            unit={unit}
            onChange={setTyped}
            min={0}
            max={1000}
          />
          <Button
            mode="outlined"
            testID="take-typed"
            onPress={() => done({ press: 'enter length', n: touched.tool, mm: typed })}
          >
            Enter what is typed
          </Button>
        </>
      )}
    </Sheet>
  );
}
